// Serves the built application: migrates, loads the demo on the first run, prints the address.
import { createServer } from 'node:http';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const inRoot = (/** @type {string[]} */ ...parts) => path.join(root, ...parts);

/** @param {string} text */
function stop(text) {
  process.stderr.write(`${text}\n`);
  process.exit(1);
}

export async function serve() {
  const { readConfig } = await import(pathToFileURL(inRoot('build/node/config.js')).href);
  let config;
  try {
    config = readConfig(process.env);
  } catch (error) {
    stop(
      `Tally Loft cannot start with these settings:\n${error instanceof Error ? error.message : error}`,
    );
  }
  process.env.TALLY_LOFT_ROOT = root;
  // The routes bound their bodies themselves.
  process.env.BODY_SIZE_LIMIT = 'Infinity';
  process.env.PROTOCOL_HEADER = 'x-tally-loft-protocol';
  let handler;
  try {
    ({ handler } = await import(pathToFileURL(inRoot('build/handler.js')).href));
  } catch (error) {
    stop(`Tally Loft cannot start: ${error instanceof Error ? error.message : error}`);
  }
  const server = createServer((request, response) => {
    request.headers['x-tally-loft-protocol'] = 'http';
    // Static files are answered before the application is asked.
    response.setHeader('x-content-type-options', 'nosniff');
    response.setHeader('referrer-policy', 'same-origin');
    response.setHeader('cross-origin-resource-policy', 'same-origin');
    handler(request, response);
  });
  server.on('error', (error) => {
    const code = /** @type {NodeJS.ErrnoException} */ (error).code;
    if (code === 'EADDRINUSE')
      stop(
        `Port ${config.port} is taken. Stop what runs there, or set TALLY_LOFT_PORT to another.`,
      );
    stop(`The server cannot listen on ${config.host}:${config.port}: ${error.message}`);
  });
  server.listen(config.port, config.host, () => {
    const at = server.address();
    const port = typeof at === 'object' && at ? at.port : config.port;
    const host = config.host.includes(':') ? `[${config.host}]` : config.host;
    process.stdout.write(`Tally Loft is at http://${host}:${port}/\n`);
  });
  for (const signal of ['SIGINT', 'SIGTERM'])
    process.on(signal, () => {
      server.close();
      server.closeAllConnections();
      // The application closes its data; whatever still runs is not waited for.
      process.emit(/** @type {any} */ ('sveltekit:shutdown'), signal);
      setTimeout(() => process.exit(0), 200);
    });
}

if (process.argv[1] && path.resolve(process.argv[1]) === fileURLToPath(import.meta.url))
  await serve();

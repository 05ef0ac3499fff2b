// Brings Tally Loft from a fresh clone to a running application: installs, builds if needed,
// migrates, loads the demo on the first run, serves, prints the address.
import { spawnSync } from 'node:child_process';
import { createServer } from 'node:http';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const inRoot = (...parts) => path.join(root, ...parts);

/** @param {string} text */
function stop(text) {
  process.stderr.write(`${text}\n`);
  process.exit(1);
}

const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 19))
  stop(`Tally Loft needs Node 20.19 or later; this is ${process.versions.node}.`);

/** @param {string[]} args */
function npm(args, what) {
  process.stdout.write(`${what}…\n`);
  const { status } = spawnSync('npm', args, {
    cwd: root,
    stdio: ['ignore', 'inherit', 'inherit'],
    shell: process.platform === 'win32',
  });
  if (status !== 0) stop(`${what} failed. Its own words stand above.`);
}

/** A print of everything the build is made from. */
function sourcePrint() {
  const hash = createHash('sha256');
  const visit = (entry) => {
    for (const item of readdirSync(inRoot(entry), { withFileTypes: true }).sort((a, b) =>
      a.name < b.name ? -1 : 1,
    )) {
      const name = `${entry}/${item.name}`;
      if (item.isDirectory()) visit(name);
      else hash.update(name).update(readFileSync(inRoot(name)));
    }
  };
  for (const folder of ['src', 'cli', 'static'].filter((f) => existsSync(inRoot(f)))) visit(folder);
  for (const file of [
    'package-lock.json',
    'vite.config.ts',
    'vite.node.config.ts',
    'svelte.config.js',
  ])
    hash.update(readFileSync(inRoot(file)));
  return hash.digest('hex');
}

const stamped = (file) => (existsSync(inRoot(file)) ? readFileSync(inRoot(file), 'utf8') : '');
function stamp(file, text) {
  mkdirSync(path.dirname(inRoot(file)), { recursive: true });
  writeFileSync(inRoot(file), text);
}

export function prepare() {
  const lock = createHash('sha256')
    .update(readFileSync(inRoot('package-lock.json')))
    .digest('hex');
  if (stamped('node_modules/.tally-loft-lock') !== lock) {
    npm(['ci', '--no-fund', '--no-audit'], 'Installing packages');
    stamp('node_modules/.tally-loft-lock', lock);
  }
  const print = sourcePrint();
  if (stamped('build/.print') !== print) {
    npm(['run', '--silent', 'build'], 'Building');
    stamp('build/.print', print);
  }
}

async function serve() {
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
  const { handler } = await import(pathToFileURL(inRoot('build/handler.js')).href);
  const server = createServer((request, response) => {
    request.headers['x-tally-loft-protocol'] = 'http';
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
      server.close(() => process.exit(0));
      server.closeAllConnections();
    });
}

if (process.argv[1] && path.resolve(process.argv[1]) === fileURLToPath(import.meta.url)) {
  prepare();
  await serve();
}

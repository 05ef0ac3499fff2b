import { execFileSync, spawn } from 'node:child_process';
import { chmodSync, existsSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Client } from 'pg';

const VERSIONS = '/usr/lib/postgresql';
const PASSWORD = 'Skerry light 7';

/** Where Debian keeps the programs of its newest PostgreSQL; null where there is none. */
function programs(): string | null {
  if (!existsSync(VERSIONS)) return null;
  const [newest] = readdirSync(VERSIONS).sort((a, b) => Number(b) - Number(a));
  const folder = path.join(VERSIONS, newest ?? '', 'bin');
  return existsSync(path.join(folder, 'initdb')) ? folder : null;
}

/** Whether a real server can be started here. Tests that need one are left out with a word where not. */
export const hasPostgres = programs() !== null;
if (!hasPostgres)
  console.warn('No PostgreSQL here (Debian: apt-get install postgresql): its tests are left out.');

/** The server refuses to run as root: the user that Debian made for it does. */
function user(): { uid?: number; gid?: number } {
  if (process.getuid?.() !== 0) return {};
  const id = (flag: string): number =>
    Number(execFileSync('id', [flag, 'postgres'], { encoding: 'utf8' }));
  return { uid: id('-u'), gid: id('-g') };
}

const freePort = (): Promise<number> =>
  new Promise((found) => {
    const server = createServer();
    server.listen(0, '127.0.0.1', () => {
      const address = server.address();
      const port = typeof address === 'object' && address ? address.port : 0;
      server.close(() => found(port));
    });
  });

export interface PostgresServer {
  readonly port: number;
  readonly password: string;
  /** Its owner’s connection, which may write. */
  readonly owner: Client;
  stop(): Promise<void>;
}

/** A server of its own in a folder of its own, on the loopback address. */
export async function startPostgres(): Promise<PostgresServer> {
  const bin = programs();
  if (bin === null) throw new Error('There is no PostgreSQL here.');
  const as = user();
  const folder = mkdtempSync(path.join(tmpdir(), 'tally-loft-postgres-'));
  const secret = path.join(folder, 'password');
  writeFileSync(secret, PASSWORD);
  chmodSync(folder, 0o777);
  chmodSync(secret, 0o644);
  const data = path.join(folder, 'data');
  execFileSync(
    path.join(bin, 'initdb'),
    [
      '-D',
      data,
      '-U',
      'owner',
      '-E',
      'UTF8',
      '--locale=C',
      '-A',
      'scram-sha-256',
      `--pwfile=${secret}`,
      '-N',
    ],
    { ...as, stdio: 'ignore', cwd: folder },
  );
  const port = await freePort();
  const server = spawn(
    path.join(bin, 'postgres'),
    ['-D', data, '-p', String(port), '-k', folder, '-h', '127.0.0.1', '-F'],
    { ...as, stdio: 'ignore', cwd: folder },
  );
  const owner = await connected(port);
  return {
    port,
    password: PASSWORD,
    owner,
    async stop() {
      await owner.end();
      const ended = new Promise((gone) => server.once('exit', gone));
      server.kill('SIGINT');
      await ended;
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** The owner's connection to one of its databases. */
export async function connected(port: number, database = 'postgres'): Promise<Client> {
  for (let tries = 0; ; tries++) {
    const client = new Client({
      host: '127.0.0.1',
      port,
      user: 'owner',
      password: PASSWORD,
      database,
    });
    try {
      await client.connect();
      return client;
    } catch (error) {
      if (tries > 100) throw error;
      await new Promise((soon) => setTimeout(soon, 100));
    }
  }
}

import { BadConfig } from './errors';
import path from 'node:path';
import { z } from 'zod';

const LOOPBACK = new Set(['127.0.0.1', '::1', 'localhost']);

const whole = (low: number, high: number) =>
  z.coerce
    .number({ error: `must be a whole number from ${low} to ${high}` })
    .int(`must be a whole number from ${low} to ${high}`)
    .min(low, `must be a whole number from ${low} to ${high}`)
    .max(high, `must be a whole number from ${low} to ${high}`);

/** What the server takes from its environment; each with a safe default. See `.env.example`. */
const Environment = z.object({
  TALLY_LOFT_DATA: z.string().min(1).default('data'),
  TALLY_LOFT_HOST: z.string().min(1).default('127.0.0.1'),
  TALLY_LOFT_PORT: whole(0, 65535).default(4180),
  TALLY_LOFT_LOG: z
    .enum(['silent', 'error', 'warn', 'info', 'debug'], {
      error: 'must be silent, error, warn, info or debug',
    })
    .default('info'),
  TALLY_LOFT_UPLOAD_MB: whole(1, 4096).default(256),
  TALLY_LOFT_STORAGE_MB: whole(0, 1_000_000).default(0),
  TALLY_LOFT_ASK_SECONDS: whole(1, 3600).default(60),
  TALLY_LOFT_ASK_MEMORY_MB: whole(128, 65_536).default(2048),
  TALLY_LOFT_ASK_THREADS: whole(1, 64).default(2),
  TALLY_LOFT_ANSWER_MB: whole(1, 1024).default(64),
  TALLY_LOFT_PASSPHRASE: z.string().default(''),
  TALLY_LOFT_CONNECTIONS: z.string().default(''),
  TALLY_LOFT_DEMO: z.enum(['yes', 'no'], { error: 'must be yes or no' }).default('yes'),
});

export interface Config {
  /** Folder of the database and of files on their way in. */
  readonly dataFolder: string;
  readonly host: string;
  readonly port: number;
  readonly logLevel: 'silent' | 'error' | 'warn' | 'info' | 'debug';
  /** Largest file, and largest set of columns, that a list may come from. */
  readonly uploadBytes: number;
  /** Room the database may take; 0: as much as the disk has. */
  readonly storageBytes: number;
  /** How long an ask may take, what it may hold meanwhile, and how large its answer may be. */
  readonly askMs: number;
  readonly askMemoryMb: number;
  /** Asks answered at one time; others wait. */
  readonly askThreads: number;
  readonly answerBytes: number;
  /** Empty: none is asked for, which only the loopback address allows. */
  readonly passphrase: string;
  readonly loopback: boolean;
  /** File of the connections to databases. */
  readonly connectionsFile: string;
  /** Whether the first run loads the demo data. */
  readonly demo: boolean;
}

/**
 * @throws BadConfig naming every setting that is wrong, and what it must be
 */
export function readConfig(env: Readonly<Record<string, string | undefined>>): Config {
  const given = Object.fromEntries(
    Object.entries(env).filter(([k, v]) => k.startsWith('TALLY_LOFT_') && v !== ''),
  );
  const parsed = Environment.safeParse(given);
  if (!parsed.success)
    throw new BadConfig(
      parsed.error.issues
        .map((i) => `${i.path.join('.')} ${i.message} (it is “${given[String(i.path[0])] ?? ''}”)`)
        .join('\n'),
    );
  const e = parsed.data;
  const loopback = LOOPBACK.has(e.TALLY_LOFT_HOST);
  if (!loopback && e.TALLY_LOFT_PASSPHRASE.length < 8)
    throw new BadConfig(
      `TALLY_LOFT_PASSPHRASE must be set, with 8 characters or more, to listen on ${e.TALLY_LOFT_HOST}: ` +
        'only the loopback address 127.0.0.1 goes without one.',
    );
  return {
    dataFolder: path.resolve(e.TALLY_LOFT_DATA),
    host: e.TALLY_LOFT_HOST,
    port: e.TALLY_LOFT_PORT,
    logLevel: e.TALLY_LOFT_LOG,
    uploadBytes: e.TALLY_LOFT_UPLOAD_MB * 1024 * 1024,
    storageBytes: e.TALLY_LOFT_STORAGE_MB * 1024 * 1024,
    askMs: e.TALLY_LOFT_ASK_SECONDS * 1000,
    askMemoryMb: e.TALLY_LOFT_ASK_MEMORY_MB,
    askThreads: e.TALLY_LOFT_ASK_THREADS,
    answerBytes: e.TALLY_LOFT_ANSWER_MB * 1024 * 1024,
    passphrase: e.TALLY_LOFT_PASSPHRASE,
    loopback,
    connectionsFile: path.resolve(
      e.TALLY_LOFT_CONNECTIONS || path.join(e.TALLY_LOFT_DATA, 'connections.json'),
    ),
    demo: e.TALLY_LOFT_DEMO === 'yes',
  };
}

import { readFileSync, statSync } from 'node:fs';
import { z } from 'zod';
import { BadConfig } from '../errors';

/** A name that stands in addresses and in recipes. */
const Name = z
  .string()
  .regex(/^[\w][\w .-]{0,79}$/u, 'must be a name of letters, digits, spaces, points and dashes');

/** A password, or the name of the variable of the environment that holds it. */
const Secret = z.union([z.string(), z.strictObject({ env: z.string().min(1) })]);

const PostgresConnection = z.strictObject({
  kind: z.literal('postgres'),
  host: z.string().min(1).default('127.0.0.1'),
  port: z.int().min(1).max(65_535).default(5432),
  database: z.string().min(1),
  user: z.string().min(1),
  password: Secret.default(''),
  /** Whether the connection is encrypted, and the server's certificate checked. */
  tls: z.boolean().default(false),
  /** How long one reading may take. */
  seconds: z.int().min(1).max(86_400).default(600),
});
export type PostgresConnection = z.infer<typeof PostgresConnection>;

const SqliteConnection = z.strictObject({
  kind: z.literal('sqlite'),
  file: z.string().min(1),
  seconds: z.int().min(1).max(86_400).default(600),
});

/** How a database is reached. */
export const Connection = z.discriminatedUnion('kind', [PostgresConnection, SqliteConnection]);
export type Connection = z.infer<typeof Connection>;
export type Connections = ReadonlyMap<string, Connection>;

const Connections = z.record(Name, Connection);

const OTHERS = 0o077;

/**
 * The connections that are kept under names: a JSON file that only its owner can read, since passwords may
 * stand in it. No file: none. It is read whenever it is needed, so a change holds at once.
 * @throws BadConfig where it can be read by others, or is no such file
 *
 * @example
 * { "ferry": { "kind": "postgres", "database": "ferry", "user": "reader", "password": { "env": "FERRY_PASSWORD" } } }
 */
export function readConnections(file: string): Connections {
  const info = statSync(file, { throwIfNoEntry: false });
  if (!info) return new Map();
  if (process.platform !== 'win32' && info.mode & OTHERS)
    throw new BadConfig(
      `“${file}” can be read by others than its owner, and passwords may stand in it. Make it private (chmod 600), then try again.`,
    );
  const parsed = Connections.safeParse(jsonOf(file));
  if (!parsed.success)
    throw new BadConfig(
      `“${file}” cannot be used: ${parsed.error.issues.map(issueWords).join('; ')}`,
    );
  return new Map(Object.entries(parsed.data));
}

/** A name that cannot be one says so itself. */
const issueWords = (issue: z.core.$ZodIssue): string =>
  `${issue.path.join('.') || 'it'}: ${issue.code === 'invalid_key' ? issue.issues.map(({ message }) => message).join(', ') : issue.message}`;

function jsonOf(file: string): unknown {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    // What a parser would quote may be a password.
    throw new BadConfig(`“${file}” is not JSON, or cannot be read.`);
  }
}

/** @throws BadConfig where the environment does not have it */
export function passwordOf(
  { password }: PostgresConnection,
  env: Readonly<Record<string, string | undefined>>,
): string {
  if (typeof password === 'string') return password;
  const held = env[password.env];
  if (held === undefined)
    throw new BadConfig(
      `The password of this connection is in the variable ${password.env}, which is not set.`,
    );
  return held;
}

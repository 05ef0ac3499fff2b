import { Client, DatabaseError, type QueryConfig } from 'pg';
import { to as copyTo, type CopyToStreamQuery } from 'pg-copy-streams';
import type { DeclaredColumn } from '$lib/core/read/unfold/declared';
import type { AskedOf } from '$lib/core/read/unfold/source';
import { DatabaseFault } from '../errors';
import { passwordOf, type PostgresConnection } from './connections';
import { headsLine, queryText, quotedName, type DatabaseSource } from './reading';

/** How long a server may take to answer at all. */
const CONNECT_MS = 10_000;

/**
 * A PostgreSQL server. Each question is asked in a transaction that only reads, with a time limit, on a
 * connection of its own. Records come by COPY, which is the fastest that the server has.
 */
export function postgresSource(
  connection: PostgresConnection,
  env: Readonly<Record<string, string | undefined>> = process.env,
): DatabaseSource {
  return {
    async tables() {
      const client = await connected(connection, env);
      try {
        return await tablesOf(client);
      } catch (error) {
        throw told(error, connection);
      } finally {
        await client.end();
      }
    },
    async read(asked) {
      const client = await connected(connection, env);
      try {
        const what = await described(client, asked);
        const backend = await backendOf(client);
        const cancel = (): Promise<void> => cancelled(connection, env, backend);
        return { columns: what.columns, text: recordsOf(client, connection, what, cancel) };
      } catch (error) {
        await client.end();
        throw told(error, connection);
      }
    },
  };
}

async function connected(
  connection: PostgresConnection,
  env: Readonly<Record<string, string | undefined>>,
): Promise<Client> {
  const { host, port, database, user, tls, seconds } = connection;
  const client = new Client({
    host,
    port,
    database,
    user,
    password: passwordOf(connection, env),
    ssl: tls,
    connectionTimeoutMillis: CONNECT_MS,
    application_name: 'Tally Loft',
  });
  // A connection that breaks while nothing is asked of it is told by the next question.
  client.on('error', () => undefined);
  try {
    await client.connect();
    await client.query('BEGIN TRANSACTION ISOLATION LEVEL REPEATABLE READ READ ONLY');
    await client.query(
      `SET LOCAL statement_timeout = ${seconds * 1000}; SET LOCAL TimeZone = 'UTC'; SET LOCAL DateStyle = 'ISO, YMD'; SET LOCAL IntervalStyle = 'iso_8601'; SET LOCAL bytea_output = 'hex'; SET LOCAL client_encoding = 'UTF8'`,
    );
    return client;
  } catch (error) {
    await client.end().catch(() => undefined);
    throw told(error, connection);
  }
}

/** The process at the server that answers this connection. */
async function backendOf(client: Client): Promise<number> {
  const { rows } = await client.query<[number]>({
    rowMode: 'array',
    text: 'SELECT pg_backend_pid()',
  });
  return rows[0][0];
}

/** Ends what that process is at. */
async function cancelled(
  connection: PostgresConnection,
  env: Readonly<Record<string, string | undefined>>,
  backend: number,
): Promise<void> {
  const client = await connected(connection, env);
  await client.query('SELECT pg_cancel_backend($1)', [backend]).catch(() => undefined);
  await client.end();
}

/** Tables and views that the user may read; those outside the search path with their schema. */
async function tablesOf(client: Client): Promise<string[]> {
  const { rows } = await client.query<[string]>({
    rowMode: 'array',
    text: `SELECT CASE WHEN pg_table_is_visible(c.oid) THEN c.relname ELSE n.nspname || '.' || c.relname END AS name
      FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
      WHERE c.relkind IN ('r', 'p', 'v', 'm', 'f') AND n.nspname NOT IN ('pg_catalog', 'information_schema')
        AND n.nspname !~ '^pg_' AND NOT c.relispartition
        AND has_schema_privilege(n.oid, 'USAGE') AND has_table_privilege(c.oid, 'SELECT')
      ORDER BY name`,
  });
  return rows.map(([name]) => name);
}

/** What is asked for, as a select, and its columns. */
interface Described {
  readonly from: string;
  readonly columns: readonly DeclaredColumn[];
  /** What stands behind each column in the select that is read. */
  readonly casts: readonly string[];
}

async function described(client: Client, asked: AskedOf): Promise<Described> {
  const from =
    'table' in asked ? await tableIn(client, asked.table) : await soundQuery(client, asked.query);
  const { fields } = await client.query(`SELECT * FROM (${from}\n) AS asked LIMIT 0`);
  if (fields.length === 0) throw new DatabaseFault('What was asked for has no columns.');
  const known = fields.map(({ dataTypeID }) => TYPES[dataTypeID] ?? AS_TEXT);
  return {
    from,
    columns: fields.map(({ name }, k) => {
      const { type, long = false, moments = false } = known[k];
      return { name, type, long, moments };
    }),
    casts: known.map(({ cast = '' }) => cast),
  };
}

async function tableIn(client: Client, wanted: string): Promise<string> {
  const names = await tablesOf(client);
  if (!names.includes(wanted))
    throw new DatabaseFault(
      `There is no table “${wanted}” here. There are ${names.map((name) => `“${name}”`).join(', ') || 'none'}.`,
    );
  // Only a name outside the search path was given a schema, and only there a point parts the two.
  const { rows } = await client.query<[string, string]>({
    rowMode: 'array',
    text: `SELECT n.nspname, c.relname FROM pg_class c JOIN pg_namespace n ON n.oid = c.relnamespace
      WHERE CASE WHEN pg_table_is_visible(c.oid) THEN c.relname ELSE n.nspname || '.' || c.relname END = $1
        AND c.relkind IN ('r', 'p', 'v', 'm', 'f')
      ORDER BY pg_table_is_visible(c.oid) DESC LIMIT 1`,
    values: [wanted],
  });
  const [[schema, table]] = rows;
  return `SELECT * FROM ${quotedName(schema)}.${quotedName(table)}`;
}

/**
 * The query by itself, prepared and never run so: what is no single statement is refused by the server
 * here, and nothing in it can close the brackets that it is put in.
 */
async function soundQuery(client: Client, query: string): Promise<string> {
  const text = queryText(query);
  // The extended protocol takes one statement, never several.
  const alone: QueryConfig & { queryMode: 'extended' } = {
    text: `PREPARE tally_loft_asked AS ${text}`,
    queryMode: 'extended',
  };
  await client.query(alone);
  await client.query('DEALLOCATE tally_loft_asked');
  return text;
}

interface KnownType {
  readonly type: 'text' | 'number' | 'yesno' | 'date' | 'time' | 'datetime';
  readonly long?: boolean;
  readonly moments?: boolean;
  readonly cast?: string;
}

const AS_TEXT: KnownType = { type: 'text' };
const NUMBER: KnownType = { type: 'number' };
const LONG_NUMBER: KnownType = { type: 'number', long: true };

/** By the numbers that PostgreSQL gives its types (`pg_type.oid`); all others are texts, as it writes them. */
const TYPES: Readonly<Record<number, KnownType>> = {
  16: { type: 'yesno', cast: '::int' },
  20: LONG_NUMBER,
  21: NUMBER,
  23: NUMBER,
  26: NUMBER,
  700: NUMBER,
  701: NUMBER,
  // Money is written with its currency and as the place has it.
  790: { type: 'number', cast: '::numeric' },
  1082: { type: 'date' },
  1083: { type: 'time' },
  1114: { type: 'datetime' },
  1184: { type: 'datetime', moments: true },
  1700: LONG_NUMBER,
};

/** COPY of a select, its columns by their place: two may have one name. */
function copyOf({ from, casts }: Described): string {
  const names = casts.map((_, k) => `c${k}`);
  const cells = names.map((name, k) => name + casts[k]).join(', ');
  // The records of one column would be empty lines where it has nothing.
  const more = casts.length === 1 ? ', NULL' : '';
  return `COPY (SELECT ${cells}${more} FROM (${from}\n) AS asked(${names.join(', ')})) TO STDOUT (FORMAT csv)`;
}

async function* recordsOf(
  client: Client,
  connection: PostgresConnection,
  described: Described,
  cancel: () => Promise<void>,
): AsyncGenerator<Uint8Array> {
  let stream: CopyToStreamQuery | null = null;
  let ended = false;
  try {
    yield new TextEncoder().encode(headsLine(described.columns));
    stream = client.query(copyTo(copyOf(described)));
    for await (const part of stream.iterator({ destroyOnReturn: false }))
      if (part instanceof Uint8Array) yield part;
    ended = true;
  } catch (error) {
    ended = true;
    throw told(error, connection);
  } finally {
    if (stream && !ended) await leave(stream, cancel);
    await client.end();
  }
}

/** Left before its end, it would work on for nobody; what is on its way is let go. */
async function leave(stream: CopyToStreamQuery, cancel: () => Promise<void>): Promise<void> {
  await cancel();
  await new Promise((over) => stream.once('end', over).once('error', over).resume());
}

/** What the database, or the way to it, said. Neither password nor address is told. */
function told(error: unknown, { seconds }: PostgresConnection): Error {
  if (error instanceof DatabaseFault) return error;
  if (error instanceof DatabaseError) {
    const said = WORDS[error.code ?? ''];
    if (said) return new DatabaseFault(said(seconds));
    const place = error.position ? ` (at character ${error.position})` : '';
    return new DatabaseFault(`The database says: ${error.message}${place}.`);
  }
  if (error instanceof Error && 'code' in error && typeof error.code === 'string')
    return new DatabaseFault(
      'The database does not answer. See that it runs, and that the connection names its host and port.',
    );
  return error instanceof Error
    ? new DatabaseFault(`The reading broke off: ${error.message}.`)
    : new DatabaseFault('The reading broke off.');
}

/** By codes of SQL (ISO/IEC 9075, and PostgreSQL’s own). */
const WORDS: Readonly<Record<string, (seconds: number) => string>> = {
  '25006': () => 'A database is only read here; this would change it.',
  '28000': () => 'The database does not admit this user. See the connection’s user and password.',
  '28P01': () => 'The database does not admit this user. See the connection’s user and password.',
  '3D000': () => 'There is no such database on the server. See the connection’s database.',
  '57014': (seconds) =>
    `This took longer than the ${seconds} s that the connection allows, and was stopped. Ask for less, or raise its “seconds”.`,
};

import { Client, DatabaseError, type QueryConfig } from 'pg';
import { to as copyTo, type CopyToStreamQuery } from 'pg-copy-streams';
import type { DeclaredColumn } from '$lib/core/read/decode/declared';
import type { AskedOf } from '$lib/core/read/decode/source';
import type { ColumnType } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { DatabaseFault } from '../errors';
import { passwordOf, type PostgresConnection } from './connections';
import {
  CopyDecoder,
  date,
  float4,
  float8,
  int2,
  int4,
  int8,
  numeric,
  oid,
  text,
  time,
  timestamp,
  yesNo,
  type Decode,
} from './copyDecoder';
import { groupedSelect, type Grouped, type GroupingDialect } from './grouped';
import { PartBuilder } from './partBuilder';
import { queryText, quotedName, type DatabaseSource } from './reading';

/** How long a server may take to answer at all. */
const CONNECT_MS = 10_000;
const NOTHING = Buffer.alloc(0);

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
    async read(asked, most, grouped) {
      const client = await connected(connection, env);
      try {
        const records = await described(client, await selectOf(client, asked));
        const what = grouped ? await grouping(client, records, grouped) : records;
        const backend = await backendOf(client);
        const cancel = (): Promise<void> => cancelled(connection, env, backend);
        return {
          columns: what.columns,
          parts: partsOf(client, connection, what, most, cancel),
          stop: cancel,
        };
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
  readonly types: readonly KnownType[];
}

const selectOf = (client: Client, asked: AskedOf): Promise<string> =>
  'table' in asked ? tableIn(client, asked.table) : soundQuery(client, asked.query);

/** Its records as the server groups them. */
function grouping(client: Client, { from, types }: Described, by: Grouped): Promise<Described> {
  const key = (name: string, place: number): string => {
    const { type, cast = '' } = types[place];
    // By its letters: what a collation or a type takes as the same is apart in the list.
    return type === 'text' ? `(${name}::text COLLATE "C")` : `(${name}${cast})`;
  };
  /** @param aggregate of the values, and of which of them: neither NaN nor infinite, which are unread here */
  const over =
    (aggregate: (x: string, some: string) => string) =>
    (name: string, place: number): string => {
      const { summed = types[place].cast ?? '', finite } = types[place];
      const x = `(${name}${summed})`;
      return `(${aggregate(x, finite ? ` FILTER (WHERE ${finite(x)})` : '')})::float8`;
    };
  // Sums of whole numbers and of decimals are exact, and rounded once; those of doubles go in the server’s own order.
  const aggregates: GroupingDialect['aggregates'] = {
    count: over((x, some) => `count(${x})${some}`),
    sum: over((x, some) => `sum(${x})${some}`),
    lowest: over((x, some) => `min(${x})${some}`),
    highest: over((x, some) => `max(${x})${some}`),
    squares: over((x, some) => `var_pop(${x})${some} * count(${x})${some}`),
    magnitude: over((x, some) => `sum(abs(${x}))${some}`),
    unread: over((x, some) => `count(${x}) - count(${x})${some}`),
  };
  return described(client, groupedSelect(from, types.length, by, { key, aggregates }));
}

async function described(client: Client, from: string): Promise<Described> {
  const { fields } = await client.query(`SELECT * FROM (${from}\n) AS asked LIMIT 0`);
  if (fields.length === 0) throw new DatabaseFault('What was asked for has no columns.');
  const types = fields.map(({ dataTypeID }) => TYPES[dataTypeID] ?? AS_TEXT);
  const columns = fields.map(({ name }, k) => {
    const { type, long = false, unit = '' } = types[k];
    return { name, type, long, unit };
  });
  return { from, columns, types };
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

/** How a type of the server is read: a cast in the select, the type it is here, and its bytes. */
interface KnownType {
  readonly type: ColumnType;
  readonly decode: Decode;
  readonly long?: boolean;
  /** Moments: they come in UTC. */
  readonly unit?: string;
  readonly cast?: string;
  /** A number: the cast that it is added up by, where another. */
  readonly summed?: string;
  /** A number that may be NaN or infinite: the condition that it is neither. */
  readonly finite?: (x: string) => string;
}

/** NaN is above all numbers there. */
const finiteDouble = (x: string): string => `${x} > '-Infinity' AND ${x} < 'Infinity'`;
/** Past these a double does not hold every whole number. */
const safe = (x: string): string => `${x} BETWEEN -9007199254740991 AND 9007199254740991`;
/** Before version 14 there is no infinity that a decimal could be compared with. */
const finiteDecimal = (x: string): string => `${x} BETWEEN -1e400::numeric AND 1e400::numeric`;

/** Whatever the server has no form for that is read here is the text that it writes for it. */
const AS_TEXT: KnownType = { type: 'text', decode: text, cast: '::text' };

/** By the numbers that PostgreSQL gives its types (`pg_type.oid`). */
const TYPES: Readonly<Record<number, KnownType>> = {
  16: { type: 'yesno', decode: yesNo },
  20: { type: 'number', decode: int8, long: true, finite: safe },
  21: { type: 'number', decode: int2 },
  23: { type: 'number', decode: int4 },
  26: { type: 'number', decode: oid, summed: '::int8' },
  // By its shortest digits, as it is read.
  700: { type: 'number', decode: float4, summed: '::text::float8', finite: finiteDouble },
  701: { type: 'number', decode: float8, finite: finiteDouble },
  790: { type: 'number', decode: numeric, long: true, cast: '::numeric' },
  1082: { type: 'date', decode: date },
  1083: { type: 'time', decode: time },
  1114: { type: 'datetime', decode: timestamp },
  1184: { type: 'datetime', decode: timestamp, unit: 'UTC' },
  1700: { type: 'number', decode: numeric, long: true, finite: finiteDecimal },
};

/** COPY of a select, its columns by their place: two may have one name. */
function copyOf({ from, types }: Described): string {
  const names = types.map((_, k) => `c${k}`);
  const cells = names.map((name, k) => name + (types[k].cast ?? '')).join(', ');
  return `COPY (SELECT ${cells} FROM (${from}\n) AS asked(${names.join(', ')})) TO STDOUT (FORMAT binary)`;
}

/** The records in parts of at most so many. */
async function* partsOf(
  client: Client,
  connection: PostgresConnection,
  described: Described,
  most: number,
  cancel: () => Promise<void>,
): AsyncGenerator<Table> {
  const stream = client.query(copyTo(copyOf(described)));
  const builder = new PartBuilder(described.columns);
  const decoder = new CopyDecoder(
    described.types.map(({ decode }) => decode),
    builder,
  );
  let ended = false;
  try {
    for await (const piece of stream.iterator({ destroyOnReturn: false })) {
      let bytes = Buffer.isBuffer(piece) ? piece : NOTHING;
      while (decoder.push(bytes, most)) {
        yield builder.take();
        bytes = NOTHING;
      }
    }
    ended = true;
    if (builder.length > 0) yield builder.take();
  } catch (error) {
    ended = true;
    throw told(error, connection);
  } finally {
    if (!ended) await leave(stream, cancel);
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

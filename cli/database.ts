import { HEAD_BYTES } from '$lib/core/read/decode';
import { OpenedFile } from '$lib/core/read/opened';
import type { DeclaredColumn } from '$lib/core/read/unfold/declared';
import {
  askedBy,
  type AskedOf,
  type DatabaseForm,
  type Source,
} from '$lib/core/read/unfold/source';
import { readConfig } from '$lib/server/config';
import { readConnections } from '$lib/server/databases/connections';
import { postgresSource } from '$lib/server/databases/postgres';
import { openSqlite } from '$lib/server/databases/sqlite';
import { DatabaseFault } from '$lib/server/errors';
import { Failed, Misused } from './exit';

/** What of a database is read: a table or view by its name, or what a query comes to. */
export interface FromDatabase {
  readonly table?: string;
  readonly query?: string;
}

/** A table or a query, read to its end. */
export interface ReadDatabase {
  readonly opened: OpenedFile;
  readonly text: readonly Uint8Array[];
}

const MARK = 'SQLite format 3\0';

export const isSqlite = (head: Uint8Array): boolean =>
  Buffer.from(head.subarray(0, MARK.length)).toString('latin1') === MARK;

const NAMED = 'connection:';

/** The name of a connection that stands where a file would; null for a file. */
export const connectionIn = (data: string): string | null =>
  data.startsWith(NAMED) ? data.slice(NAMED.length) : null;

/** A table or a query of a SQLite file. @throws Failed */
export function readSqlite(
  file: string,
  wanted: FromDatabase | undefined,
  source: Source | undefined,
): ReadDatabase {
  return failing(() => {
    const database = openSqlite(file);
    try {
      const asked = askedOf(wanted, source, database.tables);
      const { columns, text } = database.read(asked);
      return opened({ form: 'sqlite' }, asked, columns, database.tables, [...text]);
    } finally {
      database.close();
    }
  });
}

/**
 * A table or a query of a database that is kept under a name (docs/databases.md).
 * @throws Misused for a name that there is not, Failed
 */
export async function readConnection(
  name: string,
  wanted: FromDatabase | undefined,
  source: Source | undefined,
): Promise<ReadDatabase> {
  const { connectionsFile } = readConfig(process.env);
  const connections = readConnections(connectionsFile);
  const connection = connections.get(name);
  if (!connection)
    throw new Misused(
      `There is no connection “${name}” in “${connectionsFile}”. It has ${[...connections.keys()].map((one) => `“${one}”`).join(', ') || 'none'}.`,
    );
  if (connection.kind === 'sqlite') {
    const { opened, text } = readSqlite(connection.file, wanted, source);
    return { opened, text };
  }
  try {
    const database = postgresSource(connection);
    const tables = await database.tables();
    const asked = askedOf(wanted, source, tables);
    const reading = await database.read(asked);
    const text: Uint8Array[] = [];
    for await (const part of reading.text) text.push(part);
    return opened({ form: 'postgres', connection: name }, asked, reading.columns, tables, text);
  } catch (error) {
    throw asFailed(error);
  }
}

function askedOf(
  { table, query }: FromDatabase = {},
  source: Source | undefined,
  tables: readonly string[],
): AskedOf {
  if (query !== undefined) return { query };
  if (table !== undefined) return { table };
  const before = source && askedBy(source);
  if (before) return before;
  const [only] = tables;
  if (only !== undefined && tables.length === 1) return { table: only };
  throw new Failed(
    `Name the table with --table, or give a --query. Its tables are ${tables.map((one) => `“${one}”`).join(', ') || 'none'}.`,
  );
}

function opened(
  from: { readonly form: DatabaseForm; readonly connection?: string },
  asked: AskedOf,
  columns: readonly DeclaredColumn[],
  tables: readonly string[],
  text: readonly Uint8Array[],
): ReadDatabase {
  const head = Buffer.concat(text.slice(0, 8)).subarray(0, HEAD_BYTES);
  const whole = text.reduce((n, part) => n + part.length, 0) <= head.length;
  return {
    opened: OpenedFile.unfolded({
      source: { ...from, ...('table' in asked ? { part: asked.table } : asked) },
      choices: { members: [], parts: tables },
      doubts: [],
      content: { kind: 'declared', head, whole, columns },
    }),
    text,
  };
}

function failing<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    throw asFailed(error);
  }
}

const asFailed = (error: unknown): unknown =>
  error instanceof DatabaseFault ? new Failed(error.message) : error;

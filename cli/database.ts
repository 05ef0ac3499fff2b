import { IntakeError } from '$lib/core/errors';
import { OpenedFile } from '$lib/core/read/opened';
import { declaredTable, type DeclaredColumn } from '$lib/core/read/decode/declared';
import {
  askedBy,
  type AskedOf,
  type DatabaseForm,
  type Source,
  NO_PARTS,
} from '$lib/core/read/decode/source';
import type { Table } from '$lib/core/table/table';
import { readConfig } from '$lib/server/config';
import { readConnections, type Connection } from '$lib/server/databases/connections';
import { postgresSource } from '$lib/server/databases/postgres';
import { openSqlite } from '$lib/server/databases/sqlite';
import { DatabaseFault } from '$lib/server/errors';
import { Failed, Misused } from './exit';

/** What of a database is read: a table or view by its name, or what a query comes to. */
export interface FromDatabase {
  readonly table?: string;
  readonly query?: string;
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
  connection?: string,
): OpenedFile {
  return failing(() => {
    const database = openSqlite(file);
    try {
      const asked = askedOf(wanted, source, database.tables);
      const { columns, parts } = database.read(asked, Infinity);
      return opened({ form: 'sqlite', ...(connection && { connection }) }, asked, columns, [
        ...parts,
      ]);
    } finally {
      database.close();
    }
  });
}

/** @throws Misused for a name that there is not */
export function connectionNamed(name: string): Connection {
  const { connectionsFile } = readConfig(process.env);
  const connections = readConnections(connectionsFile);
  const connection = connections.get(name);
  if (!connection)
    throw new Misused(
      `There is no connection “${name}” in “${connectionsFile}”. It has ${[...connections.keys()].map((one) => `“${one}”`).join(', ') || 'none'}.`,
    );
  return connection;
}

/**
 * A table or a query of a database that is kept under a name (docs/databases.md).
 * @throws Misused for a name that there is not, Failed
 */
export async function readConnection(
  name: string,
  wanted: FromDatabase | undefined,
  source: Source | undefined,
): Promise<OpenedFile> {
  const connection = connectionNamed(name);
  if (connection.kind === 'sqlite') return readSqlite(connection.file, wanted, source, name);
  try {
    const database = postgresSource(connection);
    const asked = askedOf(wanted, source, await database.tables());
    const { columns, parts } = await database.read(asked, Infinity);
    const tables: Table[] = [];
    for await (const part of parts) tables.push(part);
    return opened({ form: 'postgres', connection: name }, asked, columns, tables);
  } catch (error) {
    throw asFailed(error);
  }
}

/** What of a database is asked: what the call says, what the recipe said, or its only table. @throws Failed */
export function askedOf(
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

/** @param parts one table of all records, or none where there are none */
function opened(
  from: { readonly form: DatabaseForm; readonly connection?: string },
  asked: AskedOf,
  declared: readonly DeclaredColumn[],
  [all]: readonly Table[],
): OpenedFile {
  if (!all) throw new IntakeError('noRecords', 'What was asked of the database has no records.');
  return OpenedFile.unfolded({
    source: { ...from, ...('table' in asked ? { part: asked.table } : asked) },
    choices: NO_PARTS,
    doubts: [],
    content: { kind: 'typed', table: declaredTable(all, declared), declared },
  });
}

function failing<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    throw asFailed(error);
  }
}

/** What a database says is what the run says. */
export const asFailed = (error: unknown): unknown =>
  error instanceof DatabaseFault ? new Failed(error.message) : error;

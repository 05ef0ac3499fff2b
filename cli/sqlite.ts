import Sqlite from 'better-sqlite3';
import { BLANK, gridAsText, type GridCell } from '$lib/core/read/unfold/cellGrid';
import type { Unfolded } from '$lib/core/read/unfold/unfold';
import { Failed } from './exit';

/** What of a database is read: a table or view by its name, or what a query comes to. */
export interface FromDatabase {
  readonly table?: string;
  readonly query?: string;
}

const MARK = 'SQLite format 3\0';

export const isSqlite = (head: Uint8Array): boolean =>
  Buffer.from(head.subarray(0, MARK.length)).toString('latin1') === MARK;

const quoted = (name: string): string => `"${name.replaceAll('"', '""')}"`;

/**
 * A table or a query of a SQLite file, opened to be read only: numbers are numbers, texts are read as those of
 * any file, blanks are NULL and the empty text.
 * @throws Failed where the database has not what is asked for, or the query does not run
 */
export function unfoldSqlite(file: string, { table, query }: FromDatabase): Unfolded {
  let db: Sqlite.Database | null = null;
  try {
    db = new Sqlite(file, { readonly: true, fileMustExist: true });
    const tables = db
      .prepare(
        "select name from sqlite_master where type in ('table', 'view') and name not like 'sqlite!_%' escape '!' order by name",
      )
      .pluck()
      .all()
      .map(String);
    const part = query === undefined ? tableIn(tables, table) : null;
    const statement = db.prepare(query ?? `select * from ${quoted(part ?? '')}`);
    if (!statement.reader) throw new Failed('The query gives no records: it has to be a SELECT.');
    const heads = statement.columns().map(({ name }): GridCell => ({ kind: 'text', text: name }));
    const rows = statement
      .safeIntegers()
      .raw()
      .all()
      .map((row) => (Array.isArray(row) ? row.map(cellOf) : []));
    const grid = [heads, ...rows];
    return {
      source: { form: 'sqlite', ...(part !== null && { part }) },
      choices: { members: [], parts: tables },
      doubts: [],
      content: { kind: 'text', bytes: gridAsText(grid), grid },
    };
  } catch (error) {
    if (error instanceof Failed) throw error;
    throw new Failed(
      `The database “${file}” cannot be read: ${error instanceof Error ? error.message : String(error)}.`,
    );
  } finally {
    db?.close();
  }
}

function tableIn(tables: readonly string[], wanted: string | undefined): string {
  const named = tables.map((name) => `“${name}”`).join(', ') || 'none';
  if (wanted === undefined) {
    const [only] = tables;
    if (only !== undefined && tables.length === 1) return only;
    throw new Failed(`Name the table with --table, or give a --query. Its tables are ${named}.`);
  }
  const found = tables.find((name) => name.toLowerCase() === wanted.toLowerCase());
  if (found === undefined)
    throw new Failed(`There is no table “${wanted}”. Its tables are ${named}.`);
  return found;
}

/** A whole number that no double holds stays text with all of its digits; bytes are written as SQL does. */
function cellOf(value: unknown): GridCell {
  if (value === null || value === '') return BLANK;
  if (typeof value === 'bigint')
    return Number.isSafeInteger(Number(value))
      ? { kind: 'number', text: String(value) }
      : { kind: 'text', text: String(value) };
  if (typeof value === 'number') return { kind: 'number', text: String(value) };
  if (Buffer.isBuffer(value)) return { kind: 'text', text: `x'${value.toString('hex')}'` };
  return { kind: 'text', text: String(value) };
}

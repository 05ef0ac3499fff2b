import Sqlite from 'better-sqlite3';
import type { DeclaredColumn } from '$lib/core/read/unfold/declared';
import type { AskedOf } from '$lib/core/read/unfold/source';
import { DatabaseFault } from '../errors';
import { headsLine, queryText, quotedName } from './reading';

/** Records that are written out at a time. */
const BATCH = 2000;

/** A SQLite file, opened to be read only: its tables, and what is asked of it. */
export interface OpenSqlite {
  readonly tables: readonly string[];
  /** @throws DatabaseFault */
  read(asked: AskedOf): SqliteReading;
  close(): void;
}

export interface SqliteReading {
  readonly columns: readonly DeclaredColumn[];
  /** @throws DatabaseFault */
  readonly text: Iterable<Uint8Array>;
}

/** @throws DatabaseFault where it is no such file, or cannot be read */
export function openSqlite(file: string): OpenSqlite {
  const db = saying(() => new Sqlite(file, { readonly: true, fileMustExist: true }));
  const tables = saying(() =>
    db
      .prepare(
        "select name from sqlite_master where type in ('table', 'view') and name not like 'sqlite!_%' escape '!' order by name",
      )
      .pluck()
      .all()
      .map(String),
  );
  return {
    tables,
    read: (asked) => saying(() => reading(db, selectOf(tables, asked))),
    close: () => db.close(),
  };
}

function selectOf(tables: readonly string[], asked: AskedOf): string {
  if ('query' in asked) return queryText(asked.query);
  const wanted = asked.table;
  const found = tables.find((name) => name.toLowerCase() === wanted.toLowerCase());
  if (found === undefined)
    throw new DatabaseFault(
      `There is no table “${wanted}”. Its tables are ${tables.map((name) => `“${name}”`).join(', ') || 'none'}.`,
    );
  return `select * from ${quotedName(found)}`;
}

function reading(db: Sqlite.Database, select: string): SqliteReading {
  const statement = db.prepare(select);
  if (!statement.reader)
    throw new DatabaseFault('The query gives no records: it has to be a SELECT.');
  const names = statement.columns().map(({ name }) => name);
  const numeric = numericOf(db, select, names.length);
  const columns = names.map((name, k): DeclaredColumn => ({
    name,
    type: numeric[k] ? 'number' : null,
    long: true,
    moments: false,
  }));
  return { columns, text: textOf(statement, columns) };
}

/**
 * Which columns hold numbers alone, and one at least. SQLite keeps a type with each value, not with the
 * column, so all of them are asked; texts may be days or codes, and are judged as those of a file.
 */
function numericOf(db: Sqlite.Database, select: string, count: number): boolean[] {
  const names = Array.from({ length: count }, (_, k) => `c${k}`);
  const sums = names.map(
    (name) =>
      `max(typeof(${name}) in ('integer', 'real')) and not max(typeof(${name}) in ('text', 'blob'))`,
  );
  const [row] = db
    .prepare(
      `with asked(${names.join(', ')}) as (${select}\n) select ${sums.join(', ')} from asked`,
    )
    .raw()
    .all();
  return Array.isArray(row) ? row.map((value) => value === 1) : names.map(() => false);
}

function* textOf(
  statement: Sqlite.Statement,
  columns: readonly DeclaredColumn[],
): Generator<Uint8Array> {
  const encoder = new TextEncoder();
  let lines = headsLine(columns);
  let held = 0;
  const rows = statement.safeIntegers().raw().iterate();
  for (;;) {
    const next = saying(() => rows.next());
    if (next.done) break;
    const cells = Array.isArray(next.value) ? next.value.map(cellText) : [];
    lines += `${cells.join(',')}${cells.length === 1 ? ',' : ''}\n`;
    if (++held === BATCH) {
      yield encoder.encode(lines);
      [lines, held] = ['', 0];
    }
  }
  yield encoder.encode(lines);
}

const MARKS = /[",\r\n]/;

/** Nothing is nothing; bytes are written as SQL does. */
function cellText(value: unknown): string {
  if (value === null) return '';
  if (Buffer.isBuffer(value)) return `x'${value.toString('hex')}'`;
  const text = String(value);
  return MARKS.test(text) || text.trim() !== text ? `"${text.replaceAll('"', '""')}"` : text;
}

function saying<T>(work: () => T): T {
  try {
    return work();
  } catch (error) {
    if (error instanceof DatabaseFault) throw error;
    throw new DatabaseFault(
      `The database cannot be read: ${error instanceof Error ? error.message : String(error)}.`,
    );
  }
}

import Sqlite from 'better-sqlite3';
import type { DeclaredColumn } from '$lib/core/read/decode/declared';
import type { AskedOf } from '$lib/core/read/decode/source';
import type { Table } from '$lib/core/table/table';
import { DatabaseFault } from '../errors';
import { groupedSelect, type Grouped, type GroupingDialect } from './grouped';
import { PartBuilder, type Cells } from './partBuilder';
import { queryText, quotedName } from './reading';

/** A SQLite file, opened to be read only: its tables, and what is asked of it. */
export interface OpenSqlite {
  readonly tables: readonly string[];
  /** @param most records of a part @throws DatabaseFault */
  read(asked: AskedOf, most: number, grouped?: Grouped): SqliteReading;
  close(): void;
}

export interface SqliteReading {
  readonly columns: readonly DeclaredColumn[];
  /** Its records, a part of them in each table. @throws DatabaseFault */
  readonly parts: Iterable<Table>;
}

/** @throws DatabaseFault where it is no such file, or cannot be read */
export function openSqlite(file: string): OpenSqlite {
  const db = saying(() => new Sqlite(file, { readonly: true, fileMustExist: true }));
  addSquares(db);
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
    read: (asked, most, grouped) =>
      saying(() => {
        const select = selectOf(tables, asked);
        return grouped
          ? readingGroups(db, select, grouped, most)
          : reading(db, select, (names) => numericOf(db, select, names.length), most);
      }),
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

/** @param numericAmong which of the columns hold numbers alone */
function reading(
  db: Sqlite.Database,
  select: string,
  numericAmong: (names: readonly string[]) => boolean[],
  most: number,
): SqliteReading {
  const statement = db.prepare(select);
  if (!statement.reader)
    throw new DatabaseFault('The query gives no records: it has to be a SELECT.');
  const names = statement.columns().map(({ name }) => name);
  const numeric = numericAmong(names);
  const columns = names.map((name, k): DeclaredColumn => ({
    name,
    type: numeric[k] ? 'number' : null,
    long: true,
    unit: '',
  }));
  return { columns, parts: partsOf(statement, columns, most) };
}

/** The records of a select, grouped. What was kept comes as texts: what they are is known of the list. */
function readingGroups(
  db: Sqlite.Database,
  select: string,
  by: Grouped,
  most: number,
): SqliteReading {
  const width = db.prepare(select).columns().length;
  const grouped = groupedSelect(select, width, by, {
    // By its letters, whatever collation the column has.
    key: (name) => `${name} COLLATE BINARY`,
    aggregates: AGGREGATES_IN_SQL,
  });
  const isAggregate = (names: readonly string[]): boolean[] =>
    names.map((_, k) => k >= by.kept.length);
  return reading(db, grouped, isAggregate, most);
}

/** Numbers alone, finite ones: a column may hold anything. */
const FINITE = (x: string): string =>
  `FILTER (WHERE typeof(${x}) IN ('integer', 'real') AND abs(${x}) < 9e999)`;

/** `total` is of doubles, whatever their size; SQLite compensates it (Kahan, Babuška and Neumaier). */
const AGGREGATES_IN_SQL: GroupingDialect['aggregates'] = {
  count: (x) => `count(${x}) ${FINITE(x)}`,
  sum: (x) => `total(${x}) ${FINITE(x)}`,
  lowest: (x) => `min(${x}) ${FINITE(x)}`,
  highest: (x) => `max(${x}) ${FINITE(x)}`,
  squares: (x) => `tally_loft_squares(${x}) ${FINITE(x)}`,
  magnitude: (x) => `total(abs(${x})) ${FINITE(x)}`,
  unread: (x) => `count(${x}) - count(${x}) ${FINITE(x)}`,
};

interface Squares {
  readonly n: number;
  readonly mean: number;
  readonly squares: number;
}

/** Σ(x − mean)², which SQLite lacks: Welford (1962). */
function addSquares(db: Sqlite.Database): void {
  db.aggregate('tally_loft_squares', {
    start: (): Squares => ({ n: 0, mean: 0, squares: 0 }),
    step: ({ n, mean, squares }: Squares, x: unknown): Squares => {
      const value = Number(x);
      const away = value - mean;
      const next = mean + away / (n + 1);
      return { n: n + 1, mean: next, squares: squares + away * (value - next) };
    },
    result: ({ squares }: Squares) => squares,
  });
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

function* partsOf(
  statement: Sqlite.Statement,
  columns: readonly DeclaredColumn[],
  most: number,
): Generator<Table> {
  const builder = new PartBuilder(columns);
  const rows = statement.safeIntegers().raw().iterate();
  for (;;) {
    const next = saying(() => rows.next());
    if (next.done) break;
    const row: readonly unknown[] = Array.isArray(next.value) ? next.value : [];
    builder.cells.forEach((cells, k) => put(row[k], cells));
    builder.length++;
    if (builder.length === most) yield builder.take();
  }
  if (builder.length > 0) yield builder.take();
}

/** A whole number that no double holds is a text with all of its digits; bytes are written as SQL does. */
function put(value: unknown, into: Cells): void {
  if (value === null) into.blank();
  else if (typeof value === 'number' && Number.isFinite(value)) into.value(value);
  else if (typeof value === 'bigint' && Number.isSafeInteger(Number(value)))
    into.value(Number(value));
  else if (Buffer.isBuffer(value)) into.text(`x'${value.toString('hex')}'`);
  else into.text(String(value));
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

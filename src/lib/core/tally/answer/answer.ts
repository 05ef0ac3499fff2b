import { inStretches, type Task } from '../../task/task';
import { recordPlace } from '../../table/recordNumber';
import type { Condition } from '../../selection/condition';
import type { Bitset } from '../../table/bitset';
import type { Figure, FigureColumn, FigureRow, FigureTable, ScopeName } from './result';
import type { Table } from '../../table/table';
import type { MovedBy } from '../kinds/comparison/movedBy';
import type { CarriedFrom } from '../groups/carriedFrom';
import type { Warning } from '../trust/warnings';

/**
 * What a tally comes to, before it is plain data: tables whose rows are made when they are asked
 * for. A ranking of a million records holds their order and no row.
 */
export interface AnswerTable {
  /** `main`, or what it holds besides: `methods`, `points`. */
  readonly name: string;
  readonly caption: string;
  /** The first so many columns are labels. */
  readonly labels: number;
  /** All rows together make the whole. */
  readonly whole?: boolean;
  readonly columns: readonly FigureColumn[];
  readonly length: number;
  /** No row is a part of another; rows are made one by one, so they are not looked at in passing. */
  readonly flat?: boolean;
  /** How many of its rows are groups, where that is known before they are made. */
  readonly groups?: number;
  /** The deepest level of its rows, where that is known before they are made. */
  readonly deepest?: number;
  /** Figures that are no measures open too, to the records of their row. */
  readonly opens?: boolean;
  /** What a row of each level under the whole is, in one word: `year`, `quarter`. Groups unless given. */
  readonly levels?: readonly string[];
  /** A row by its place, from 0. */
  row(n: number): FigureRow;
  /** The number where a row and a column cross; NaN for none and for texts. */
  number(n: number, column: number): number;
  /** The columns that rows of records are written by, where they stand among groups. */
  readonly recordColumns?: readonly FigureColumn[] | undefined;
  /** The place of the row that a row is a part of; -1 for none. */
  partOf(n: number): number;
  /** A row without its figures, where it is made with less than the whole row. */
  readonly outline?: (n: number) => RowOutline;
  /** The place of the row with these keys; -1 where there is none. */
  find(keys: readonly Figure[]): Task<number>;
  /** What the records of a row meet, where its row does not say it because finding it takes long. */
  readonly where?: (n: number) => Task<Condition | undefined>;
  /** What the figure of a row and a column stands on; by what the rows that it reaches meet unless given. */
  readonly stands?: (n: number, column: number) => Task<CarriedFrom>;
  /** The records of several rows, found at one pass; by what each meets unless given. */
  readonly recordsOf?: ((rows: ArrayLike<number>) => Task<Bitset>) | undefined;
  /**
   * What the figures of a row stand on that reach the rows before it; null where they reach none.
   * Rows are looked through for it unless given.
   */
  readonly carried?: ((n: number) => Task<CarriedFrom | null>) | undefined;
}

/** What a row is, without its figures. */
export type RowOutline = Pick<FigureRow, 'kind' | 'level'> & { readonly keys: readonly Figure[] };

/** The tables of a tally and what should be known about them. */
export interface TallyAnswer {
  readonly tables: readonly AnswerTable[];
  readonly warnings: readonly Warning[];
  /** The order in which its records are listed; that of the list unless given. */
  readonly order?: Int32Array;
  /** Of what moved between two readings: the records of both that moved the figure of a row. */
  readonly movedBy?: (row: number) => Task<MovedBy>;
  /** Of two lists side by side: the records of the other list that a row stands on; null where it says none. */
  readonly elsewhere?: (row: number) => Task<Elsewhere | null>;
}

/** Records of another list. */
export interface Elsewhere {
  /** The name of the list. */
  readonly list: string;
  readonly table: Table;
  /** Their places, rising. */
  readonly records: Int32Array;
  /** The columns that matter: what the records meet by, and what the figure is of. */
  readonly columns: readonly string[];
}

/** The same with what it was asked. */
export interface Answer extends TallyAnswer {
  readonly kind: string;
  /** The sentence. */
  readonly words: string;
  readonly scope: ScopeName;
  /** Records it was computed from. */
  readonly records: number;
}

/** The keys of a row: those given, or its labels themselves. */
export const keysOfRow = (row: FigureRow, labels: number): readonly Figure[] =>
  row.keys ?? row.cells.slice(0, labels);

/** The columns that a row is written by. */
export const columnsOf = (
  { columns, recordColumns }: Pick<AnswerTable, 'columns' | 'recordColumns'>,
  { record }: FigureRow,
): readonly FigureColumn[] => (record && recordColumns) || columns;

/** What a row of a table is, by the shortest way. */
export function outlineOf(table: AnswerTable, n: number): RowOutline {
  if (table.outline) return table.outline(n);
  const row = table.row(n);
  return { kind: row.kind, level: row.level, keys: keysOfRow(row, table.labels) };
}

const sameKeys = (a: readonly Figure[], b: readonly Figure[]): boolean =>
  a.length === b.length && a.every((key, k) => key === b[k]);

/** The first of so many places that is the one looked for; -1 where none is. */
function* firstPlace(length: number, isIt: (n: number) => boolean): Task<number> {
  let found = -1;
  yield* inStretches(length, (from, to) => {
    for (let n = from; n < to && found < 0; n++) if (isIt(n)) found = n;
  });
  return found;
}

/** A table whose rows are there already. */
export function tableOf(table: FigureTable): AnswerTable {
  const { rows, ...about } = table;
  return {
    ...about,
    length: rows.length,
    row: (n) => rows[n],
    number(n, column) {
      const cell = rows[n].cells[column];
      return typeof cell === 'number' ? cell : NaN;
    },
    partOf: (n) => rows[n].partOf ?? -1,
    find: (keys) =>
      firstPlace(rows.length, (n) => sameKeys(keysOfRow(rows[n], table.labels), keys)),
  };
}

/** A table of rows that are made when they are asked for, whatever they are. */
export function tableOfRows(
  about: Omit<FigureTable, 'rows'>,
  { length, row }: Pick<AnswerTable, 'length' | 'row'>,
): AnswerTable {
  return {
    ...about,
    length,
    row,
    number(n, column) {
      const cell = row(n).cells[column];
      return typeof cell === 'number' ? cell : NaN;
    },
    partOf: () => -1,
    find: (keys) => firstPlace(length, (n) => sameKeys(keysOfRow(row(n), about.labels), keys)),
  };
}

/** What is known of records in rows of their own without making the rows. */
export interface RecordRows {
  readonly length: number;
  row(n: number): FigureRow;
  /** The record that a row is; -1 for a row of several. */
  recordAt(n: number): number;
  /** The row of a record; -1 where it has none. */
  rowOf(record: number): number;
  /** A number of a row; from the row itself unless given. */
  readonly number?: (n: number, column: number) => number;
  readonly carried?: AnswerTable['carried'];
}

/** A table of records in rows that are made when they are asked for, none a part of another. */
export function recordTable(
  about: Omit<FigureTable, 'rows'>,
  { length, row, recordAt, rowOf, number, carried }: RecordRows,
): AnswerTable {
  const record = about.columns.findIndex(({ key }) => key === 'record');
  return {
    ...about,
    length,
    flat: true,
    row,
    number:
      number ??
      ((n, column) => {
        const cell = row(n).cells[column];
        return typeof cell === 'number' ? cell : NaN;
      }),
    partOf: () => -1,
    *find(keys) {
      const isIt = (n: number): boolean => sameKeys(keysOfRow(row(n), about.labels), keys);
      const key = keys[record];
      // Rows of several records are few among a million: only those are made.
      if (typeof key !== 'number')
        return yield* firstPlace(length, (n) => recordAt(n) < 0 && isIt(n));
      const n = rowOf(recordPlace(key));
      return n >= 0 && isIt(n) ? n : -1;
    },
    carried,
  };
}

/** A row that is made when it is first asked for; its figures can be had without it. */
export interface RowPlan {
  /** The place of the row it is a part of; -1 for none. */
  readonly partOf: number;
  make(): FigureRow;
  /** The number in a column; NaN for none and for texts. */
  number(column: number): number;
}

/** A table of rows in levels that are made when they are first asked for, and kept. */
export function plannedTable(
  about: Omit<FigureTable, 'rows'>,
  plans: readonly RowPlan[],
): AnswerTable {
  const made: (FigureRow | undefined)[] = new Array(plans.length);
  const row = (n: number): FigureRow => (made[n] ??= plans[n].make());
  return {
    ...about,
    length: plans.length,
    row,
    number: (n, column) => plans[n].number(column),
    partOf: (n) => plans[n].partOf,
    find: (keys) =>
      firstPlace(plans.length, (n) => sameKeys(keysOfRow(row(n), about.labels), keys)),
  };
}

/** Tables as plain data, one after the other. */
export function* freezeAll(
  tables: readonly AnswerTable[],
  lean?: <T extends object>(part: T) => T,
): Task<FigureTable[]> {
  const frozen: FigureTable[] = [];
  for (const table of tables) frozen.push(yield* freeze(table, lean));
  return frozen;
}

/** Rows made between two pauses: each is an object of its own. */
const ROWS_MADE = 1024;

/**
 * The rows of some items, one or several each, made one item after the other with pauses.
 * @param rows those that stand before them
 */
export function* madeRows<T>(
  items: readonly T[],
  make: (item: T, at: number) => FigureRow | readonly FigureRow[],
  rows: FigureRow[] = [],
): Task<FigureRow[]> {
  yield* inStretches(
    items.length,
    (from, to) => {
      for (let k = from; k < to; k++) {
        const made = make(items[k], k);
        if ('cells' in made) rows.push(made);
        else rows.push(...made);
      }
    },
    ROWS_MADE,
  );
  return rows;
}

/**
 * All rows of a table, each with what its records meet.
 * @param lean what is kept of a row; all of it unless given
 */
export function* allRows(
  table: AnswerTable,
  lean: (row: FigureRow) => FigureRow = (row) => row,
): Task<FigureRow[]> {
  const rows: FigureRow[] = [];
  yield* inStretches(
    table.length,
    (from, to) => {
      for (let n = from; n < to; n++) rows.push(lean(table.row(n)));
    },
    ROWS_MADE,
  );
  if (table.where)
    for (const [n, row] of rows.entries()) {
      const where = yield* table.where(n);
      if (where) rows[n] = lean({ ...row, where });
    }
  return rows;
}

/**
 * A table as plain data, every row made, with pauses.
 * @param lean what is kept of a row or a column; all of it unless given
 */
function* freeze(
  table: AnswerTable,
  lean: <T extends object>(part: T) => T = (part) => part,
): Task<FigureTable> {
  const rows = yield* allRows(table, lean);
  return {
    name: table.name,
    caption: table.caption,
    labels: table.labels,
    ...(table.whole && { whole: true }),
    columns: table.columns.map(lean),
    ...(table.recordColumns && { recordColumns: table.recordColumns.map(lean) }),
    rows,
  };
}

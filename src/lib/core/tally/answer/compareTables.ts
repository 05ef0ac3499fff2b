import { inStretches, type Task } from '../../task/task';
import { allRows, keysOfRow, type AnswerTable } from './answer';
import type { Figure, FigureColumn, FigureRow } from './result';

/** A figure of two tables of the same tally. */
export interface FigurePair {
  readonly column: FigureColumn;
  readonly before: Figure;
  readonly after: Figure;
  /** Whether the two differ by more than rounding. */
  readonly moved: boolean;
}

/** A row of two tables of the same tally with all of its figures; a row that one of them has not is null there. */
export interface RowPair {
  readonly then: FigureRow | null;
  readonly now: FigureRow | null;
  readonly figures: readonly FigurePair[];
}

/** Rows looked at between two pauses: each has a key made of its labels. */
const ROWS = 512;

/**
 * Sets the figures of a table against those of the same tally over another reading: the one place where it is
 * said whether a figure moved. Rows meet by the values behind their labels, columns by what they are of,
 * wherever they stand; those of the newer table come first, in its order. A sum or a count that one of
 * the two has not is 0 there, so that the differences of groups add up to the whole's; anything else is none.
 */
export function* compareTables(
  then: AnswerTable,
  now: AnswerTable,
  look: (pair: RowPair) => void,
): Task<void> {
  const older = new Map<string, FigureRow>();
  const thenRows = yield* allRows(then);
  yield* inStretches(
    thenRows.length,
    (from, to) => {
      for (let n = from; n < to; n++) older.set(rowKey(then, thenRows[n]), thenRows[n]);
    },
    ROWS,
  );
  const columns = columnPairs(then, now);
  const pair = (a: FigureRow | null, b: FigureRow | null): RowPair => ({
    then: a,
    now: b,
    figures: columns.map(({ column, from, at }) => {
      const absent = column.adds ? 0 : null;
      const before = a && from >= 0 ? a.cells[from] : absent;
      const after = b && at >= 0 ? b.cells[at] : absent;
      return { column, before, after, moved: hasMoved(column, before, after, a, b) };
    }),
  });
  const nowRows = yield* allRows(now);
  yield* inStretches(
    nowRows.length,
    (from, to) => {
      for (let n = from; n < to; n++) {
        const key = rowKey(now, nowRows[n]);
        look(pair(older.get(key) ?? null, nowRows[n]));
        older.delete(key);
      }
    },
    ROWS,
  );
  const gone = [...older.values()];
  yield* inStretches(
    gone.length,
    (from, to) => {
      for (let n = from; n < to; n++) look(pair(gone[n], null));
    },
    ROWS,
  );
}

/** Whether a column names its rows; a place in a ranking is a figure of them, though it stands first. */
export const isLabel = (
  { labels, columns }: Pick<AnswerTable, 'labels' | 'columns'>,
  at: number,
): boolean => at < labels && columns[at].type !== 'rank';

/** The labels of a row in words: `Holm › Gannet`; '' for the whole of a table that gives it no name. */
export const rowWords = (table: AnswerTable, { cells }: FigureRow): string =>
  cells.filter((label, c) => isLabel(table, c) && label !== null && label !== '').join(' › ');

/** A row by the values behind its labels: a blank is not the text “blank”. */
function rowKey(table: AnswerTable, row: FigureRow): string {
  const named = keysOfRow(row, table.labels).filter((_, c) => isLabel(table, c));
  return JSON.stringify([row.kind, row.level, row.kind === 'others' ? [] : named]);
}

/** A column by what it is of, whatever its unit is, and by the values of the groups that it stands for. */
const columnKey = ({ title, keys }: FigureColumn): string => JSON.stringify([title, keys ?? null]);

/** Columns of figures that either has, with their places in both; -1: it has it not. */
function columnPairs(
  then: AnswerTable,
  now: AnswerTable,
): { column: FigureColumn; from: number; at: number }[] {
  const places = new Map<string, number>();
  then.columns.forEach((column, c) => {
    if (!isLabel(then, c)) places.set(columnKey(column), c);
  });
  const out: { column: FigureColumn; from: number; at: number }[] = [];
  const taken = new Set<string>();
  now.columns.forEach((column, at) => {
    const key = columnKey(column);
    // A measure that was asked for twice is one figure.
    if (isLabel(now, at) || taken.has(key)) return;
    taken.add(key);
    out.push({ column, from: places.get(key) ?? -1, at });
    places.delete(key);
  });
  for (const from of places.values()) out.push({ column: then.columns[from], from, at: -1 });
  return out;
}

/**
 * Relative to a figure: what adding the same numbers in another order can change. Sums are compensated
 * (Neumaier 1974), so that only their last bits can differ; what follows from squares loses some more.
 */
const OF_SUMS = 2 ** -48;
const OF_OTHERS = 2 ** -38;
/** Of the bound of a plain sum: a compensated one stays far below it, also where its terms cancel out. */
const OF_BOUND = 2 ** -30;

function hasMoved(
  column: FigureColumn,
  before: Figure,
  after: Figure,
  then: FigureRow | null,
  now: FigureRow | null,
): boolean {
  if (typeof before !== 'number' || typeof after !== 'number') return before !== after;
  const apart = Math.abs(after - before);
  if (apart === 0 || column.type === 'count' || column.type === 'rank') return apart > 0;
  const size = Math.max(Math.abs(before), Math.abs(after));
  if (column.adds) return apart > OF_SUMS * size + OF_BOUND * column.adds.bound;
  // A difference of two sums is as sure as these are, however small it is.
  const around =
    column.measure || column.type === 'share' ? 0 : Math.max(sizeOf(then), sizeOf(now));
  return apart > Math.max(OF_OTHERS * size, OF_SUMS * around);
}

const sizeOf = (row: FigureRow | null): number =>
  (row?.cells ?? []).reduce<number>(
    (most, cell) => (typeof cell === 'number' ? Math.max(most, Math.abs(cell)) : most),
    0,
  );

import { mergedSort } from '../sorting/mergedSort';
import { inStretches, type Steps } from '../steps/steps';
import { headOf } from '../table/format';
import { keysOfRow, type AnswerTable } from '../tally/answer';
import { figureText } from '../tally/figureText';
import type { Formats } from '../tally/formats';
import type { Figure, FigureColumn, FigureRow } from '../tally/result';

/** A figure that is not what it was. */
export interface MovedFigure {
  /** The labels of its row: `Holm › Gannet`. */
  readonly where: string;
  readonly title: string;
  readonly before: string;
  readonly after: string;
  /** Of numbers: how far it moved, as the figure is written; '' where one of the two is none. */
  readonly change: string;
  /** The change against what it was; null where that is 0 or there is none. */
  readonly share: number | null;
}

/** How the figures of one table differ from those of another of the same tally. */
export interface MovedTable {
  /** Figures that stand in both. */
  readonly compared: number;
  /** How many of them moved. */
  readonly count: number;
  /** The first of those, the largest relative change first. */
  readonly moved: readonly MovedFigure[];
  /** The first rows that only the newer, and only the older table has. */
  readonly came: readonly string[];
  readonly went: readonly string[];
}

/** Two sums of the same numbers in another order are the same figure. */
const ROUNDING = 1e-9;

/** Tables of more rows are not set against one another row by row. */
export const MOST_ROWS_COMPARED = 100_000;

/** Figures, and rows that came or went, that are told; the rest are counted. */
const MOST = 40;

/**
 * Sets the figures of a table against those of the same tally over another reading: rows meet by the
 * values of their labels, columns by what they are of, wherever they stand now.
 */
export function* movedFigures(
  before: AnswerTable,
  after: AnswerTable,
  formats: Formats = {},
): Steps<MovedTable> {
  const older = new Map<string, FigureRow>();
  yield* eachRow(before, (row, key) => older.set(key, row));
  const places = new Map(before.columns.map((column, at) => [columnKey(column), at]));
  const columns = after.columns.flatMap((column, at) => {
    const from = places.get(columnKey(column));
    const isFigure = from !== undefined && !isLabel(after, at) && !isLabel(before, from);
    return isFigure ? [{ column, at, from }] : [];
  });
  const moved: Moved[] = [];
  const came: FigureRow[] = [];
  let compared = 0;
  yield* eachRow(after, (row, key) => {
    const old = older.get(key);
    if (!old) {
      came.push(row);
      return;
    }
    older.delete(key);
    for (const { column, at, from } of columns) {
      compared++;
      const [was, is] = [old.cells[from], row.cells[at]];
      if (!isSame(was, is)) moved.push({ row, column, was, is, share: shareOf(was, is) });
    }
  });
  const size = ({ share }: Moved): number => (share === null ? Infinity : Math.abs(share));
  const largestFirst = yield* mergedSort(moved, (a, b) => size(b) - size(a) || 0);
  return {
    compared,
    count: moved.length,
    moved: largestFirst.slice(0, MOST).map((m) => movedOf(labelOf(after, m.row), m, formats)),
    came: came.slice(0, MOST).map((row) => labelOf(after, row)),
    went: [...older.values()].slice(0, MOST).map((row) => labelOf(before, row)),
  };
}

/** A figure that moved, not yet in words. */
interface Moved {
  readonly row: FigureRow;
  readonly column: FigureColumn;
  readonly was: Figure;
  readonly is: Figure;
  readonly share: number | null;
}

const shareOf = (was: Figure, is: Figure): number | null =>
  typeof was === 'number' && typeof is === 'number' && was !== 0
    ? (is - was) / Math.abs(was)
    : null;

/** Rows made between two pauses, each with a key made of its labels. */
const ROWS = 512;

/** Goes through the rows of a table with their keys, with pauses. */
const eachRow = (table: AnswerTable, look: (row: FigureRow, key: string) => void): Steps<void> =>
  inStretches(
    table.length,
    (from, to) => {
      for (let n = from; n < to; n++) {
        const row = table.row(n);
        look(row, keyOf(table, row));
      }
    },
    ROWS,
  );

/** Whether a column names its rows; a place in a ranking is a figure of them, though it stands first. */
const isLabel = ({ labels, columns }: AnswerTable, at: number): boolean =>
  at < labels && columns[at].type !== 'rank';

/** A row by the values behind its labels. */
function keyOf(table: AnswerTable, row: FigureRow): string {
  const keys = keysOfRow(row, table.labels);
  const named = keys.filter((_, c) => isLabel(table, c));
  return JSON.stringify([row.kind, row.level, row.kind === 'others' ? [] : named]);
}

const columnKey = ({ title, unit, keys }: FigureColumn): string =>
  JSON.stringify([title, unit, keys ?? null]);

function labelOf(table: AnswerTable, { cells }: FigureRow): string {
  const named = cells.filter((_, c) => isLabel(table, c));
  return named.filter((label) => label !== null && label !== '').join(' › ');
}

function isSame(was: Figure, is: Figure): boolean {
  if (typeof was !== 'number' || typeof is !== 'number') return was === is;
  return Math.abs(is - was) <= ROUNDING * Math.max(Math.abs(was), Math.abs(is));
}

/** A change too small for the figure's own digits is written with those that it needs. */
const seen = (text: string, change: number): string =>
  /[1-9]/.test(text) ? text : String(Number(change.toPrecision(2))).replace('-', '−');

function movedOf(where: string, { column, was, is, share }: Moved, formats: Formats): MovedFigure {
  const text = (figure: Figure): string => figureText(column, figure, formats);
  const numbers = typeof was === 'number' && typeof is === 'number';
  const change = numbers ? is - was : 0;
  return {
    where,
    title: headOf(column.title, column.unit),
    before: text(was),
    after: text(is),
    change: numbers ? `${change > 0 ? '+' : ''}${seen(text(change), change)}` : '',
    share,
  };
}

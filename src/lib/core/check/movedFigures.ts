import { mergedSort } from '../sorting/mergedSort';
import type { Task } from '../task/task';
import { headOf } from '../table/format';
import type { AnswerTable } from '../tally/answer/answer';
import { compareTables, rowWords } from '../tally/answer/compareTables';
import { figureText } from '../tally/answer/figureText';
import type { Formats } from '../tally/spec/formats';
import type { Figure, FigureColumn, FigureRow } from '../tally/answer/result';

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

/** Tables of more rows are not set against one another row by row. */
export const MOST_ROWS_COMPARED = 100_000;

/** Figures, and rows that came or went, that are told; the rest are counted. */
const MOST = 40;

/** Sets the figures of a table against those of the same tally over another reading, in words. */
export function* movedFigures(
  before: AnswerTable,
  after: AnswerTable,
  formats: Formats = {},
): Task<MovedTable> {
  const moved: Moved[] = [];
  const came: string[] = [];
  const went: string[] = [];
  let compared = 0;
  yield* compareTables(before, after, ({ then, now, figures }) => {
    if (now && !then) came.push(rowWords(after, now));
    if (then && !now) went.push(rowWords(before, then));
    if (!then || !now) return;
    for (const { column, before: was, after: is, moved: has } of figures) {
      compared++;
      if (has) moved.push({ row: now, column, was, is, share: shareOf(was, is) });
    }
  });
  const size = ({ share }: Moved): number => (share === null ? Infinity : Math.abs(share));
  const largestFirst = yield* mergedSort(moved, (a, b) => size(b) - size(a) || 0);
  return {
    compared,
    count: moved.length,
    moved: largestFirst.slice(0, MOST).map((m) => movedOf(rowWords(after, m.row), m, formats)),
    came: came.slice(0, MOST),
    went: went.slice(0, MOST),
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

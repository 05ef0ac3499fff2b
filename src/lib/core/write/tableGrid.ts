import type { Task } from '../task/task';
import { headOf } from '../table/format';
import { columnsOf, keysOfRow, type AnswerTable } from '../tally/answer/answer';
import { cellText, fullFigure } from '../tally/answer/figureText';
import type { Formats } from '../tally/spec/formats';
import { readIsoFigure } from '../tally/answer/readFigure';
import type { Figure, FigureColumn, FigureRow } from '../tally/answer/result';
import { rowsInView } from '../tally/answer/rowOrder';
import type { Values } from './dialect';
import type { Cell, Grid } from './grid';

export interface GridChoices {
  readonly values: Values;
  readonly formats: Formats;
  /**
   * Three columns behind the others say what a row is (`group`, `total`, `others`, `outside`), its level,
   * and how it reads for people; the labels of every row are then the values behind them.
   */
  readonly kinds?: boolean;
}

/**
 * The one way from a table of figures to texts: copies, delimited text, Markdown, web pages are written
 * from this grid. With full values labels are the values behind them (2022 for “2,022”, a period's
 * first day, nothing for blank); only rows that are no group keep their words ("Grand total").
 * @param rows the rows that are written, by their places and in their order
 */
export function tableGrid(
  table: AnswerTable,
  { values, formats, kinds = false }: GridChoices,
  rows: ArrayLike<number>,
): Grid {
  const heads = headsOf(table.columns);
  return {
    heads: kinds ? [...heads, 'row kind', 'row level', 'row label'] : heads,
    length: rows.length,
    row(n) {
      const row = table.row(rows[n]);
      const columns = columnsOf(table, row);
      const cells =
        values === 'full'
          ? fullCells(row, columns, table.labels, kinds)
          : row.cells.map((_, c) => shownCell(row, columns, table.labels, c, formats));
      return kinds ? [...cells, ...kindCells(row, columns, table.labels)] : cells;
    },
  };
}

/** All rows of a table in the order in which it is shown, its whole last. */
export const rowsShown = (table: AnswerTable): Task<Int32Array> =>
  rowsInView(table, { down: 99, turned: [] });

/** Whether a figure is a text that stood in the records, as against a number or a date written by us. */
function isFree({ type }: FigureColumn, figure: Figure): boolean {
  if (typeof figure !== 'string') return false;
  const isMoment = type === 'date' || type === 'datetime' || type === 'time';
  return !isMoment || readIsoFigure(type, figure) === null;
}

const isStrong = ({ kind }: FigureRow): { strong?: true } =>
  kind === 'total' ? { strong: true } : {};

function shownCell(
  row: FigureRow,
  columns: readonly FigureColumn[],
  labels: number,
  c: number,
  formats: Formats,
): Cell {
  const figure = row.cells[c];
  const number = typeof figure === 'number';
  return {
    text: cellText({ columns, labels }, row, c, formats),
    free: isFree(columns[c], figure),
    right: columns[c].type !== 'text' && c >= labels,
    number,
    ...(c < labels && { head: true }),
    ...isStrong(row),
    ...(c === 0 && row.level > 1 && { indent: row.level - 1 }),
  };
}

function fullCells(
  row: FigureRow,
  columns: readonly FigureColumn[],
  labels: number,
  kinds: boolean,
): Cell[] {
  const keys = keysOfRow(row, labels);
  const hasKey = (c: number): boolean => c < labels && (kinds || row.kind === 'group');
  return row.cells.map((cell, c): Cell => {
    const figure = hasKey(c) ? (keys[c] ?? null) : cell;
    return {
      text: fullFigure(figure),
      free: isFree(columns[c], figure),
      right: typeof figure === 'number',
      number: typeof figure === 'number',
      ...(c < labels && { head: true }),
      ...isStrong(row),
    };
  });
}

/** What a row is, its level, and how it reads: its last label that is a text, else its first. */
function kindCells(row: FigureRow, columns: readonly FigureColumn[], labels: number): Cell[] {
  const own = row.cells.slice(0, labels);
  const texts = own.filter((_, c) => columns[c].type === 'text');
  const label = texts.findLast((cell) => cell !== null) ?? own[0] ?? null;
  return [row.kind, row.level, label].map((figure): Cell => ({
    text: fullFigure(figure),
    free: typeof figure === 'string',
    right: typeof figure === 'number',
    number: typeof figure === 'number',
  }));
}

/** Titles with their units; two columns of one title have their keys besides. */
function headsOf(columns: readonly FigureColumn[]): string[] {
  const heads = columns.map(({ title, unit }) => headOf(title, unit));
  return heads.map((head, k) =>
    heads.indexOf(head) === heads.lastIndexOf(head) ? head : `${head} [${columns[k].key}]`,
  );
}

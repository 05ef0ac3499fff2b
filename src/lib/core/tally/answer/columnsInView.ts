import { keysOfRow, type AnswerTable } from './answer';
import type { FigureColumn, FigureRow } from './result';

/**
 * The most columns of figures that are looked at together: a cross-tab may have thousands. A number
 * that many numbers divide, so that what stands under one group is seldom parted.
 */
export const MOST_COLUMNS = 96;

/** Which columns of figures are in view: from the first of them at `from`, of so many. */
export interface Across {
  readonly from: number;
  readonly of: number;
}

/** @param from the place of a column among those of figures; one that is not there: the nearest */
export function acrossOf(table: AnswerTable, from: number): Across {
  const of = table.columns.length - table.labels;
  return { from: of > MOST_COLUMNS ? Math.max(0, Math.min(from, of - 1)) : 0, of };
}

/**
 * A table with all of its labels and some of its columns of figures; the table itself where it is
 * narrow enough. Marks have the places in view; what is marked outside is not marked here, and which
 * column is a part of which is not said. Rows, their order and their keys are the same.
 *
 * @example
 * columnsInView(crossTab, 96).columns.length  // the labels, and as many as 96 of figures
 */
export function columnsInView(table: AnswerTable, first: number): AnswerTable {
  const { from, of } = acrossOf(table, first);
  if (of <= MOST_COLUMNS) return table;
  const { labels } = table;
  const skipped = from;
  const width = labels + Math.min(MOST_COLUMNS, of - from);
  /** The place in view of a column of the table; -1 for none. */
  const seen = (column: number): number => {
    if (column < labels) return column;
    const at = column - skipped;
    return at >= labels && at < width ? at : -1;
  };
  const inView = <T>(cells: readonly T[]): T[] => [
    ...cells.slice(0, labels),
    ...cells.slice(labels + skipped, width + skipped),
  ];
  return {
    ...table,
    columns: inView(table.columns).map(({ partOf: _, ...column }): FigureColumn => column),
    row(n): FigureRow {
      const { marks, deviations, cells, ...row } = table.row(n);
      return {
        ...row,
        cells: inView(cells),
        keys: [...keysOfRow({ ...row, cells }, labels)],
        ...(marks && {
          marks: marks
            .map((mark) =>
              mark.column === undefined ? mark : { ...mark, column: seen(mark.column) },
            )
            .filter(({ column }) => column !== -1),
        }),
        ...(deviations && {
          deviations: deviations
            .map((of) => ({ ...of, column: seen(of.column) }))
            .filter(({ column }) => column !== -1),
        }),
      };
    },
    number: (n, column) => table.number(n, column < labels ? column : column + skipped),
  };
}

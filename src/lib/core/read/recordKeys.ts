import { fullCell } from '../table/cell';
import { isText, type Column } from '../table/column';

/** A column of one table and the same of another. */
export type ColumnPair = readonly [Column, Column];

/** The columns that two tables share, by their ids. */
export const sharedColumns = (from: readonly Column[], to: readonly Column[]): ColumnPair[] =>
  from.flatMap((a): ColumnPair[] => {
    const b = to.find((c) => c.id === a.id);
    return b ? [[a, b]] : [];
  });

/** Between the cells of a record's key: no text of a list is likely to hold it. */
const BETWEEN = '\u0000';

/** What a cell is compared by: its value, or its text where it has none. A text and a number are never the same. */
export function cellKey(column: Column, i: number): string | number {
  if (isText(column)) return column.codes[i] < 0 ? '' : `“${column.dictionary[column.codes[i]]}`;
  const v = column.values[i];
  return v === v ? v : fullCell(column, i);
}

/** What a record is compared by, over some columns. */
export function recordKey(columns: readonly Column[], i: number): string {
  let key = '';
  for (const column of columns) key += cellKey(column, i) + BETWEEN;
  return key;
}

import type { Task } from '../task/task';
import { isText, isUnread, type Column } from '../table/column';
import { headOf } from '../table/format';
import type { Table } from '../table/table';
import { USUAL_DIALECT } from './dialect';
import { toDelimited, type Cell, type LineDialect, type Written } from './grid';

/**
 * Records as delimited text (RFC 4180), line by line: every column, texts of the records made harmless.
 * @param records their places in the table, in the order they are written in
 * @param text a cell as it is written: in full, or as shown
 */
export function* recordsDelimited(
  { columns }: Table,
  records: ArrayLike<number>,
  text: (column: Column, record: number) => string,
  dialect: LineDialect = USUAL_DIALECT,
): Task<Written & { rows: number }> {
  const grid = {
    heads: columns.map(({ name, unit }) => headOf(name, unit)),
    length: records.length,
    row: (k: number): Cell[] =>
      columns.map((column) => ({
        text: text(column, records[k]),
        free: isText(column) || isUnread(column, records[k]),
        right: column.type === 'number',
        number: column.type === 'number' && !isUnread(column, records[k]),
      })),
  };
  return { ...(yield* toDelimited(grid, dialect)), rows: records.length };
}

import { STRIDE, type Steps } from '../steps/steps';
import { isText, isUnread, type Column } from '../table/column';
import { headOf } from '../table/format';
import type { Table } from '../table/table';
import { USUAL_DIALECT } from './dialect';
import { delimitedLine, type Cell, type Guarded, type LineDialect } from './grid';

/** Lines between two pauses: some milliseconds of work. */
const PAUSE = STRIDE >> 4;

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
): Steps<{ text: string; rows: number; guarded: number }> {
  const guarded: Guarded = { count: 0 };
  const heads = columns.map(({ name, unit }): Cell => ({ text: headOf(name, unit), free: true }));
  const lines = [delimitedLine(heads, dialect, guarded)];
  for (let k = 0; k < records.length; k++) {
    const record = records[k];
    const cells = columns.map((column): Cell => ({
      text: text(column, record),
      free: isText(column) || isUnread(column, record),
      right: column.type === 'number',
    }));
    lines.push(delimitedLine(cells, dialect, guarded));
    if (k % PAUSE === PAUSE - 1) yield k / records.length;
  }
  return { text: `${lines.join('\r\n')}\r\n`, rows: records.length, guarded: guarded.count };
}

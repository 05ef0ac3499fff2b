import { BLANK_LABEL } from '../arrange/groupCodes';
import { readIsoFigure } from './readFigure';
import { scalarColumn, textColumn, type Column, type ScalarType } from '../table/column';
import type { Table } from '../table/table';
import type { FigureColumn, FigureTable } from './result';

const SCALARS: Partial<Record<FigureColumn['type'], ScalarType>> = {
  number: 'number',
  count: 'number',
  share: 'number',
  rank: 'number',
  date: 'date',
  datetime: 'datetime',
  time: 'time',
  yesno: 'yesno',
};

/**
 * The rows of a result as a list of its own: one record for each group, totals left out. Columns
 * keep their types; they are named by their titles and found by their keys.
 * @returns the list, and which row of the result each record is
 */
export function resultTable(table: FigureTable): { list: Table; rows: number[] } {
  const rows = table.rows.flatMap((row, k) => (row.kind === 'group' ? [k] : []));
  const columns = table.columns.map((column, c): Column => {
    // The blank group of a key is a blank again.
    const cells = rows.map((k) => {
      const cell = table.rows[k].cells[c];
      return c < table.labels && cell === BLANK_LABEL ? null : cell;
    });
    const type = SCALARS[column.type];
    if (!type)
      return {
        ...textColumn(
          column.title,
          cells.map((v) => (v === null ? null : String(v))),
        ),
        id: column.key,
      };
    return scalarColumn(
      column.title,
      type,
      cells.map((v) => (typeof v === 'string' ? readIsoFigure(type, v) : v)),
      {
        id: column.key,
        unit: column.unit,
        decimals: column.decimals ?? (column.type === 'number' ? 2 : 0),
        percent: column.type === 'share',
      },
    );
  });
  return { list: { length: rows.length, columns }, rows };
}

import { scalarColumn, textColumn, type Column, type ScalarType } from '../table/column';
import { inStretches, STRIDE, type Steps } from '../steps/steps';
import type { Table } from '../table/table';
import { keysOfRow, type AnswerTable } from './answer';
import { readIsoFigure } from './readFigure';
import type { Figure, FigureColumn } from './result';

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

type Facts = NonNullable<Parameters<typeof scalarColumn>[3]>;

/**
 * The rows of a result as a list of its own: one record for each group, totals left out. Columns
 * keep their types, and labels are the values behind them: a month stays a month, a blank a blank.
 * They are named by their titles and found by their keys.
 * @returns the list, and which row of the result each record is
 */
export function* resultTable(table: AnswerTable): Steps<{ list: Table; rows: number[] }> {
  const rows: number[] = [];
  const cells: Figure[][] = table.columns.map(() => []);
  const take = (n: number): void => {
    const row = table.row(n);
    if (row.kind !== 'group') return;
    rows.push(n);
    const keys = keysOfRow(row, table.labels);
    table.columns.forEach((_, c) =>
      cells[c].push(c < table.labels ? (keys[c] ?? null) : row.cells[c]),
    );
  };
  yield* inStretches(
    table.length,
    (from, to) => {
      for (let n = from; n < to; n++) take(n);
    },
    STRIDE >> 6,
  );
  const columns: Column[] = [];
  for (const [c, column] of table.columns.entries()) {
    const { keyType } = column;
    const type = keyType ? keyType.type : column.type;
    const made = listColumn(column, SCALARS[type], cells[c], {
      id: column.key,
      unit: keyType?.unit ?? column.unit,
      decimals: keyType?.decimals ?? column.decimals ?? (column.type === 'number' ? 2 : 0),
      percent: keyType?.percent ?? (column.type === 'share' || column.percent === true),
      grain: keyType?.grain ?? column.grain ?? 'day',
      calendar: keyType?.calendar ?? column.calendar,
    });
    columns.push(made);
    yield undefined;
  }
  return { list: { length: rows.length, columns }, rows };
}

function listColumn(
  { title, key }: FigureColumn,
  type: ScalarType | undefined,
  cells: readonly Figure[],
  facts: Facts,
): Column {
  if (!type)
    return textColumn(
      title,
      cells.map((v) => (v === null ? null : String(v))),
      key,
    );
  return scalarColumn(
    title,
    type,
    cells.map((v) => (typeof v === 'string' ? readIsoFigure(type, v) : v)),
    facts,
  );
}

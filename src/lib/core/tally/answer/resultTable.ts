import { scalarColumn, type Column, type ScalarType } from '../../table/column';
import { inStretches, STRIDE, type Task } from '../../task/task';
import type { Table } from '../../table/table';
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
export function* resultTable(table: AnswerTable): Task<{ list: Table; rows: number[] }> {
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
    const made = yield* listColumn(column, SCALARS[type], cells[c], {
      id: column.key,
      unit: keyType?.unit ?? column.unit,
      decimals: keyType?.decimals ?? column.decimals ?? (column.type === 'number' ? 2 : 0),
      percent: keyType?.percent ?? (column.type === 'share' || column.percent === true),
      grain: keyType?.grain ?? column.grain ?? 'day',
      calendar: keyType?.calendar ?? column.calendar,
    });
    columns.push(made);
  }
  return { list: { length: rows.length, columns }, rows };
}

/** Its cells in the column of a list. @param type of scalars; none: text */
function* listColumn(
  { title, key }: FigureColumn,
  type: ScalarType | undefined,
  cells: readonly Figure[],
  facts: Facts,
): Task<Column> {
  if (!type) {
    const known = new Map<string, number>();
    const codes = new Int32Array(cells.length);
    yield* inStretches(
      cells.length,
      (from, to) => {
        for (let k = from; k < to; k++) codes[k] = codeIn(known, cells[k]);
      },
      STRIDE >> 3,
    );
    return { id: key, name: title, unit: '', type: 'text', codes, dictionary: [...known.keys()] };
  }
  const values = new Float64Array(cells.length);
  yield* inStretches(
    cells.length,
    (from, to) => {
      for (let k = from; k < to; k++) {
        const cell = cells[k];
        values[k] = (typeof cell === 'string' ? readIsoFigure(type, cell) : cell) ?? NaN;
      }
    },
    STRIDE >> 3,
  );
  return { ...scalarColumn(title, type, [], facts), values };
}

/** The code of a cell in a dictionary that grows; −1 for none. */
function codeIn(known: Map<string, number>, cell: Figure): number {
  if (cell === null) return -1;
  const text = String(cell);
  let code = known.get(text);
  if (code === undefined) known.set(text, (code = known.size));
  return code;
}

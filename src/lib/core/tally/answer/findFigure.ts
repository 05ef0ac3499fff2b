import { NoSuchFigure } from '../../errors';
import { inStretches, type Task } from '../../task/task';
import { counted } from '../../table/format';
import { keysOfRow, type Answer, type AnswerTable } from './answer';
import {
  columnOfFigure,
  type Figure,
  type FigureColumn,
  type FigurePlace,
  type FigureRow,
} from './result';

/** A figure where it stands. */
export interface Found {
  readonly table: AnswerTable;
  readonly n: number;
  readonly row: FigureRow;
  readonly column: FigureColumn;
  readonly at: number;
}

/** Where a figure stands. @throws NoSuchFigure */
export function* findFigure(answer: Answer, place: FigurePlace): Task<Found> {
  const table =
    typeof place.table === 'number'
      ? answer.tables[place.table]
      : answer.tables.find((t) => t.name === place.table);
  if (!table) throw new NoSuchFigure(`The result has no table ${place.table}.`);
  const n = typeof place.row === 'number' ? place.row : yield* rowWith(table, place.row);
  if (n < 0) throw new NoSuchFigure('No counted record is in this row any more.');
  if (n >= table.length)
    throw new NoSuchFigure(`The table has ${counted(table.length, 'row')}, counted from 0.`);
  const at =
    typeof place.column === 'number'
      ? place.column
      : table.columns.findIndex((c) => c.key === place.column || c.title === place.column);
  const column = table.columns[at];
  if (!column) throw new NoSuchFigure(`The table has no column ${place.column}.`);
  const row = table.row(n);
  return { table, n, row, column: columnOfFigure(table.columns, row, at), at };
}

/**
 * The row with these keys; where the rows stand in places, the one row with these keys whatever its place
 * is now, so that a group is found again once others have passed it. -1 where there is none.
 */
function* rowWith(table: AnswerTable, keys: readonly Figure[]): Task<number> {
  const exact = yield* table.find(keys);
  const named = table.columns.slice(0, table.labels).map(({ type }) => type !== 'rank');
  // Ranked records are made one by one: there may be a million.
  if (exact >= 0 || table.flat || keys.length !== table.labels) return exact;
  if (named.every(Boolean))
    return keys.every((key) => key === null)
      ? yield* onlyRow(table, ({ kind }) => kind === 'others')
      : exact;
  return yield* onlyRow(
    table,
    (row) =>
      row.kind === 'group' &&
      keysOfRow(row, table.labels).every((key, k) => !named[k] || key === keys[k]),
  );
}

/** Rows looked through between two pauses. */
const ROWS = 4096;

/** The one row of its sort; -1 where there is none or several. */
function* onlyRow(table: AnswerTable, isIt: (row: FigureRow) => boolean): Task<number> {
  const found: number[] = [];
  yield* inStretches(
    table.length,
    (from, to) => {
      for (let n = from; n < to && found.length < 2; n++) if (isIt(table.row(n))) found.push(n);
    },
    ROWS,
  );
  return found.length === 1 ? found[0] : -1;
}

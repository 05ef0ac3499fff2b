import { sortByColumn } from '../arrange/sort';
import { inStretches, STRIDE, type Steps } from '../steps/steps';
import { scalarColumn, textColumn, type Column } from '../table/column';
import { orderReadInSteps } from '../table/recordOrder';
import { keysOfRow, type AnswerTable } from './answer';
import type { Figure } from './result';

/** Rows made between two pauses: each is an object of its own. */
const ROWS = STRIDE / 16;

/**
 * The places of rows that are made one by one, of which there may be a million, in the order asked: numbers
 * by size, texts as people sort them, what has no figure last either way. What is no group (all others)
 * stands at their end.
 */
export function* flatOrder(
  table: AnswerTable,
  sort: { readonly column: string; readonly descending: boolean } | undefined,
): Steps<Int32Array> {
  const order = yield* orderReadInSteps(table.length);
  const at = sort ? table.columns.findIndex((c) => c.key === sort.column) : -1;
  if (!sort || at < 0) return order;
  let groups = table.length;
  while (groups > 0 && table.row(groups - 1).kind !== 'group') groups--;
  const figures: Figure[] = [];
  yield* inStretches(
    groups,
    (from, to) => {
      for (let n = from; n < to; n++) figures.push(figureAt(table, n, at));
    },
    ROWS,
  );
  const key = { descending: sort.descending, blanks: 'last' } as const;
  const sorted = yield* sortByColumn(columnOf(figures), key, order.slice(0, groups));
  order.set(sorted.order);
  return order;
}

function figureAt(table: AnswerTable, n: number, at: number): Figure {
  const known = at < table.labels ? NaN : table.number(n, at);
  if (known === known) return known;
  const row = table.row(n);
  return (at < table.labels ? keysOfRow(row, table.labels)[at] : row.cells[at]) ?? null;
}

function columnOf(figures: readonly Figure[]): Column {
  const numbers = figures.map((figure) => (typeof figure === 'number' ? figure : null));
  return figures.every((figure, n) => figure === null || numbers[n] !== null)
    ? scalarColumn('', 'number', numbers)
    : textColumn(
        '',
        figures.map((figure) => (figure === null ? null : String(figure))),
      );
}

import { sortByColumn } from '../../arrange/sort';
import { inStretches, STRIDE, type Task } from '../../task/task';
import { scalarColumn, textColumn, type Column } from '../../table/column';
import { orderReadInSteps } from '../../table/recordOrder';
import { keysOfRow, type AnswerTable } from '../answer/answer';
import type { Figure } from '../answer/result';

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
): Task<Int32Array> {
  const order = yield* orderReadInSteps(table.length);
  const at = sort ? table.columns.findIndex((c) => c.key === sort.column) : -1;
  if (!sort || at < 0) return order;
  let groups = table.length;
  while (groups > 0 && table.row(groups - 1).kind !== 'group') groups--;
  const column = yield* columnAt(table, at, groups);
  const key = { descending: sort.descending, blanks: 'last' } as const;
  const sorted = yield* sortByColumn(column, key, order.slice(0, groups));
  order.set(sorted.order);
  return order;
}

/** A column of the first rows as one of a list: of numbers, unless one of its figures is text. */
function* columnAt(table: AnswerTable, at: number, groups: number): Task<Column> {
  const values = new Float64Array(groups).fill(NaN);
  const texts = new Map<number, string>();
  yield* inStretches(
    groups,
    (from, to) => {
      for (let n = from; n < to; n++) {
        const figure = figureAt(table, n, at);
        if (typeof figure === 'number') values[n] = figure;
        else if (figure !== null) texts.set(n, String(figure));
      }
    },
    ROWS,
  );
  if (texts.size === 0) return { ...scalarColumn('', 'number', []), values };
  const known = new Map<string, number>();
  const codes = new Int32Array(groups).fill(-1);
  yield* inStretches(
    groups,
    (from, to) => {
      for (let n = from; n < to; n++) {
        const text = texts.get(n) ?? (Number.isNaN(values[n]) ? null : String(values[n]));
        if (text === null) continue;
        const code = known.get(text) ?? known.size;
        known.set(text, code);
        codes[n] = code;
      }
    },
    ROWS,
  );
  return { ...textColumn('', []), codes, dictionary: [...known.keys()] };
}

function figureAt(table: AnswerTable, n: number, at: number): Figure {
  const known = at < table.labels ? NaN : table.number(n, at);
  if (known === known) return known;
  const row = table.row(n);
  return (at < table.labels ? keysOfRow(row, table.labels)[at] : row.cells[at]) ?? null;
}

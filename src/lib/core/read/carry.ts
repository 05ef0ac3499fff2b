import { inStretches, type Task } from '../task/task';
import { isText, type Column } from '../table/column';
import { fullCell } from '../table/cell';
import { placesWithin, recordNumber } from '../table/recordNumber';
import type { Table } from '../table/table';

/**
 * Finds records of one reading again in another: the same in every column that both have.
 * Of several equal ones the first not yet taken is the match.
 * @param numbers of records in `from`
 * @returns numbers of records in `to`, by those in `from`; records without a match are left out
 */
export function* carryRecords(
  from: Table,
  to: Table,
  numbers: readonly number[],
): Task<Map<number, number>> {
  const pairs = from.columns.flatMap((a): [Column, Column][] => {
    const b = to.columns.find((c) => c.id === a.id);
    return b ? [[a, b]] : [];
  });
  const out = new Map<number, number>();
  const wanted = placesWithin(numbers, from.length);
  if (pairs.length === 0 || wanted.length === 0) return out;
  const pivot = mostTelling(pairs, wanted);
  const waiting = new Map<string | number, number[]>();
  for (const i of wanted) {
    const key = keyOf(pivot[0], i);
    waiting.set(key, [...(waiting.get(key) ?? []), i]);
  }
  const find = (j: number): void => {
    const key = keyOf(pivot[1], j);
    const candidates = waiting.get(key);
    if (!candidates) return;
    const at = candidates.findIndex((i) => pairs.every(([a, b]) => keyOf(a, i) === keyOf(b, j)));
    if (at < 0) return;
    out.set(recordNumber(candidates[at]), recordNumber(j));
    candidates.splice(at, 1);
    if (candidates.length === 0) waiting.delete(key);
  };
  yield* inStretches(to.length, (begin, end) => {
    for (let j = begin; j < end && waiting.size > 0; j++) find(j);
  });
  return out;
}

/** A cell as something to compare: its value, or its text where it has none. */
function keyOf(column: Column, i: number): string | number {
  if (isText(column)) return column.codes[i] < 0 ? '' : column.dictionary[column.codes[i]];
  const v = column.values[i];
  return v === v ? v : fullCell(column, i);
}

/** The column in which the records differ most. */
function mostTelling(
  pairs: readonly [Column, Column][],
  records: readonly number[],
): [Column, Column] {
  let best = pairs[0];
  let most = 0;
  for (const pair of pairs) {
    const n = new Set(records.map((i) => keyOf(pair[0], i))).size;
    if (n > most) [best, most] = [pair, n];
  }
  return best;
}

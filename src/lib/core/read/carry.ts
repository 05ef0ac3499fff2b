import { inStretches, type Task } from '../task/task';
import { placesWithin, recordNumber } from '../table/recordNumber';
import type { Table } from '../table/table';
import { cellKey, recordKey, sharedColumns, type ColumnPair } from './recordKeys';

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
  const pairs = sharedColumns(from.columns, to.columns);
  const out = new Map<number, number>();
  const wanted = placesWithin(numbers, from.length);
  if (pairs.length === 0 || wanted.length === 0) return out;
  // Whole keys are made only of records that agree in the column that tells most.
  const pivot = mostTelling(pairs, wanted);
  const likely = new Set<string | number>();
  const waiting = new Map<string, number[]>();
  const own = pairs.map(([a]) => a);
  const others = pairs.map(([, b]) => b);
  yield* inStretches(wanted.length, (begin, end) => {
    for (let k = begin; k < end; k++) {
      likely.add(cellKey(pivot[0], wanted[k]));
      const key = recordKey(own, wanted[k]);
      const same = waiting.get(key);
      if (same) same.push(wanted[k]);
      else waiting.set(key, [wanted[k]]);
    }
  });
  // The first of equals is taken first.
  for (const same of waiting.values()) same.reverse();
  const find = (j: number): void => {
    if (!likely.has(cellKey(pivot[1], j))) return;
    const i = waiting.get(recordKey(others, j))?.pop();
    if (i !== undefined) out.set(recordNumber(i), recordNumber(j));
  };
  yield* inStretches(to.length, (begin, end) => {
    for (let j = begin; j < end && out.size < wanted.length; j++) find(j);
  });
  return out;
}

/** The column in which the records differ most, of the first of them. */
function mostTelling(pairs: readonly ColumnPair[], records: readonly number[]): ColumnPair {
  let best = pairs[0];
  let most = 0;
  const some = records.slice(0, TRIED);
  for (const pair of pairs) {
    const n = new Set(some.map((i) => cellKey(pair[0], i))).size;
    if (n > most) [best, most] = [pair, n];
  }
  return best;
}

const TRIED = 10_000;

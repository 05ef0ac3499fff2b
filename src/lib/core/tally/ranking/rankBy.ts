import { sortByColumn, type SortedColumn } from '../../arrange/sort';
import { partOf, STRIDE, type Steps } from '../../steps/steps';
import { count, has, type Bitset } from '../../table/bitset';
import type { ScalarColumn } from '../../table/column';
import type { Ties } from './places';

/** Records in order of their places; records without a value are not ranked. */
export interface RankedRecords {
  readonly order: Int32Array;
  readonly places: Float64Array | Int32Array;
}

/** The share of sorting; what is left is the places. */
const SORTING = 0.8;

/**
 * Ranks the records of a selection by a column. The sort is stable over the current order, so that
 * ties "in order" follow it.
 */
export function* rankBy(
  selection: Bitset,
  column: ScalarColumn,
  descending: boolean,
  ties: Ties,
  current: Int32Array,
): Steps<RankedRecords> {
  const sorting = sortByColumn(column, { descending, blanks: 'last' }, current);
  const sorted = yield* partOf(sorting, 0, SORTING);
  yield SORTING;
  return yield* partOf(placeSorted(column.values, sorted, selection, ties), SORTING, 1);
}

/** One pass over the sorted records: those of the selection that have a value, with their places. */
function* placeSorted(
  values: Float64Array,
  { order: sorted, tied }: SortedColumn,
  selection: Bitset,
  ties: Ties,
): Steps<RankedRecords> {
  // Records without a value come last.
  let present = sorted.length;
  while (present > 0 && values[sorted[present - 1]] !== values[sorted[present - 1]]) present--;
  const all = count(selection) === sorted.length;
  const order = all ? sorted.subarray(0, present) : new Int32Array(present);
  const places = ties === 'mean' ? new Float64Array(present) : new Int32Array(present);
  const [inOrder, noGap, mean] = [ties === 'order', ties === 'noGap', ties === 'mean'];
  let n = 0;
  let start = 0;
  let distinct = 0;
  let fresh = true;
  for (let k = 0; k < present; k++) {
    if (tied[k] === 0) fresh = true;
    if (!all) {
      if (!has(selection, sorted[k])) continue;
      order[n] = sorted[k];
    }
    if (fresh) {
      if (mean) places.fill((start + n + 1) / 2, start, n);
      start = n;
      distinct++;
      fresh = false;
    }
    places[n] = inOrder ? n + 1 : noGap ? distinct : start + 1;
    n++;
    if (k % STRIDE === 0) yield k / present;
  }
  if (mean) places.fill((start + n + 1) / 2, start, n);
  return { order: order.subarray(0, n), places: places.subarray(0, n) };
}

import { sortByColumn, type SortedColumn } from '../../../arrange/sort';
import { inStretches, partOf, type Task } from '../../../task/task';
import { count, has, type Bitset } from '../../../table/bitset';
import type { ScalarColumn } from '../../../table/column';
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
): Task<RankedRecords> {
  const sorting = sortByColumn(column, { descending, blanks: 'last' }, current);
  const sorted = yield* partOf(sorting, 0, SORTING);
  yield SORTING;
  return yield* partOf(placeSorted(column.values, sorted, selection, ties), SORTING, 1);
}

/** Those of the selection that have a value, with their places. */
function* placeSorted(
  values: Float64Array,
  sorted: SortedColumn,
  selection: Bitset,
  ties: Ties,
): Task<RankedRecords> {
  // Records without a value come last.
  let present = sorted.order.length;
  while (present > 0 && values[sorted.order[present - 1]] !== values[sorted.order[present - 1]])
    present--;
  const ranked =
    count(selection) === sorted.order.length
      ? { order: sorted.order.subarray(0, present), tied: sorted.tied }
      : yield* chosenOf(sorted, present, selection);
  return { order: ranked.order, places: yield* placesIn(ranked, ties) };
}

/** Of the first sorted records those of a selection, and which of them equal the one before in it. */
function* chosenOf(
  { order: sorted, tied: known }: SortedColumn,
  present: number,
  selection: Bitset,
): Task<SortedColumn> {
  const order = new Int32Array(present);
  const tied = new Uint8Array(present);
  let n = 0;
  let isTied = 0;
  yield* inStretches(present, (from, to) => {
    let at = n;
    let own = isTied;
    for (let k = from; k < to; k++) {
      // Equal to the last one chosen only where every one between was equal to the one before.
      own &= known[k];
      if (!has(selection, sorted[k])) continue;
      order[at] = sorted[k];
      tied[at++] = own;
      own = 1;
    }
    n = at;
    isTied = own;
  });
  return { order: order.subarray(0, n), tied };
}

function* placesIn({ order, tied }: SortedColumn, ties: Ties): Task<RankedRecords['places']> {
  const n = order.length;
  if (ties === 'mean') return yield* meanPlaces(n, tied);
  const places = new Int32Array(n);
  let place = 0;
  const placed = PLACE[ties];
  yield* inStretches(n, (from, to) => {
    place = placed(places, tied, place, from, to);
  });
  return places;
}

/** Fills a stretch of places. @param place that of the record before it @returns that of its last */
type Places = (
  places: Int32Array,
  tied: Uint8Array,
  place: number,
  from: number,
  to: number,
) => number;

const PLACE: Record<Exclude<Ties, 'mean'>, Places> = {
  gap(places, tied, place, from, to) {
    for (let k = from; k < to; k++) {
      if (tied[k] === 0) place = k + 1;
      places[k] = place;
    }
    return place;
  },
  noGap(places, tied, place, from, to) {
    for (let k = from; k < to; k++) places[k] = place += 1 - tied[k];
    return place;
  },
  order(places, _tied, place, from, to) {
    for (let k = from; k < to; k++) places[k] = k + 1;
    return place;
  },
};

/** Equal ones share the mean of the places that they take up together. */
function* meanPlaces(n: number, tied: Uint8Array): Task<Float64Array> {
  const places = new Float64Array(n);
  let start = 0;
  yield* inStretches(n, (from, to) => {
    for (let k = Math.max(1, from); k < to; k++) {
      if (tied[k] === 1) continue;
      places.fill((start + k + 1) / 2, start, k);
      start = k;
    }
  });
  return places.fill((start + n + 1) / 2, start, n);
}

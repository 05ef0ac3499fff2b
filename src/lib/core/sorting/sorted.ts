import { inStretches, pausing, type Steps } from '../steps/steps';
import { byBits } from './byBits';
import { countedSort, type Range } from './countedSort';
import { INSERTED, insertion, sortRun } from './sortRun';

/** Fewer values than this are sorted at one go. */
const FEW = 1 << 14;
/** Bits of the number of a drawer, and of a bucket within it: a million values come to four a bucket. */
const DRAWER_BITS = 10;
const BUCKET_BITS = 8;
const DRAWERS = 1 << DRAWER_BITS;
const BUCKETS = 1 << BUCKET_BITS;

/**
 * The values that are there over a selection, in rising order, with pauses.
 * @param records the selection, as record numbers
 */
export function* sortedValues(values: Float64Array, records: Int32Array): Steps<Float64Array> {
  const there = new Float64Array(records.length);
  let n = 0;
  let lo = Infinity;
  let hi = -Infinity;
  yield* inStretches(records.length, (from, to) => {
    let at = n;
    let low = lo;
    let high = hi;
    for (let k = from; k < to; k++) {
      const v = values[records[k]];
      if (v !== v) continue;
      there[at++] = v;
      if (v < low) low = v;
      if (v > high) high = v;
    }
    n = at;
    lo = low;
    hi = high;
  });
  return yield* sortedInParts(there.subarray(0, n), { lo, hi });
}

/**
 * Numbers (no NaN) in rising order, with pauses: counted where they lie on a grid, else dealt into
 * buckets of equal width and each bucket sorted (Knuth, The Art of Computer Programming 3, 5.2.1
 * and 5.2.5).
 * @param values is written over
 * @param within the lowest and the highest of them, where they are known
 */
export function* sortedInParts(values: Float64Array, within?: Range): Steps<Float64Array> {
  if (values.length < FEW) return values.sort();
  const range = within ?? (yield* rangeOf(values));
  const onGrid = yield* countedSort(values, range);
  if (onGrid) return onGrid;
  yield* deal(values, range);
  return values;
}

/**
 * Dealt into drawers first and within each into buckets, so that what is written to lies close
 * together. A drawer that holds much is dealt again by itself; one that holds most, as beside an
 * absurd value, by the bits of its numbers, which part what no equal width can.
 */
function* deal(values: Float64Array, { lo, hi }: Range): Steps<void> {
  const n = values.length;
  const perUnit = (DRAWERS * BUCKETS - 1) / (hi - lo);
  if (!(perUnit > 0 && perUnit < Infinity)) return yield* byBits(values);
  const ends = new Int32Array(DRAWERS + 1);
  yield* inStretches(n, (from, to) => {
    for (let k = from; k < to; k++) ends[(((values[k] - lo) * perUnit) >>> BUCKET_BITS) + 1]++;
  });
  for (let d = 1; d <= DRAWERS; d++) ends[d] += ends[d - 1];
  const drawn = new Float64Array(n);
  yield* inStretches(n, (from, to) => {
    for (let k = from; k < to; k++) {
      const v = values[k];
      drawn[ends[((v - lo) * perUnit) >>> BUCKET_BITS]++] = v;
    }
  });
  // Each drawer's place has moved on to where the next one begins.
  const due = pausing();
  for (let d = 0, from = 0; d < DRAWERS; d++) {
    const to = ends[d];
    const drawer = drawn.subarray(from, to);
    const into = values.subarray(from, to);
    if (drawer.length < FEW) sortDrawer(drawer, lo, perUnit, into);
    else {
      into.set(drawer);
      yield* drawer.length > n / 2 ? byBits(into) : deal(into, yield* rangeOf(into));
    }
    if (due(to)) yield undefined;
    from = to;
  }
}

function* rangeOf(values: Float64Array): Steps<Range> {
  let lo = Infinity;
  let hi = -Infinity;
  yield* inStretches(values.length, (from, to) => {
    let low = lo;
    let high = hi;
    for (let k = from; k < to; k++) {
      const v = values[k];
      if (v < low) low = v;
      if (v > high) high = v;
    }
    [lo, hi] = [low, high];
  });
  return { lo, hi };
}

const places = new Int32Array(BUCKETS + 1);

/** Sorts one drawer into its place: by its buckets, and each of these by itself. */
function sortDrawer(drawer: Float64Array, lo: number, perUnit: number, out: Float64Array): void {
  const within = BUCKETS - 1;
  places.fill(0);
  for (let k = 0; k < drawer.length; k++) places[(((drawer[k] - lo) * perUnit) & within) + 1]++;
  let most = 0;
  for (let b = 1; b <= BUCKETS; b++) {
    if (places[b] > most) most = places[b];
    places[b] += places[b - 1];
  }
  for (let k = 0; k < drawer.length; k++) {
    const v = drawer[k];
    out[places[((v - lo) * perUnit) & within]++] = v;
  }
  // No value lies further from its place than its bucket is long: one run of insertion for all of them.
  if (most <= INSERTED) return insertion(out, 0, out.length);
  for (let b = 0, from = 0; b < BUCKETS; b++) {
    const to = places[b];
    sortRun(out, from, to);
    from = to;
  }
}

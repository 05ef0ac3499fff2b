import { inStretches, pausing, type Task } from '../task/task';
import { byBits } from './byBits';
import { countedSort, lengthOf, type Range, type Source } from './countedSort';
import { insertion, sortRun } from './sortRun';

/** Fewer values than this are sorted at one go. */
const FEW = 1 << 14;
/** A million values come to sixteen a bucket, whose ends are still close at hand for the processor. */
const MOST_BUCKETS = 1 << 16;
const PER_BUCKET = 16;
/** Where no bucket holds more, all are sorted by one run of insertion. */
const SMALL_BUCKET = 64;

/**
 * The values that are there over a selection, in rising order, with pauses.
 * @param records the selection, as record numbers
 * @param range how many they are, the lowest and the highest, where that is known
 */
export const sortedValues = (
  values: Float64Array,
  records: Int32Array,
  range?: Range,
): Task<Float64Array> => sortedFrom({ values, records }, range);

/**
 * Numbers (no NaN) in rising order, with pauses.
 * @param values may be written over
 */
export const sortedInParts = (values: Float64Array): Task<Float64Array> =>
  sortedFrom({ values, records: null });

/**
 * Counted where they lie on a grid, else dealt into buckets of equal width and each bucket sorted
 * (Knuth, The Art of Computer Programming 3, 5.2 and 5.2.5). They are read where they lie: what is
 * gathered first is eight bytes a record to be written, and read again.
 */
function* sortedFrom(source: Source, known?: Range): Task<Float64Array> {
  if (lengthOf(source) < FEW) return gathered(source, known).sort();
  const range = known ?? (yield* rangeOf(source));
  if (range.n === 0) return new Float64Array(0);
  return (yield* countedSort(source, range)) ?? (yield* dealt(source, range));
}

/** The numbers of a source in an array of their own. */
function gathered({ values, records }: Source, known?: Range): Float64Array {
  if (records === null) return values;
  const out = new Float64Array(known?.n ?? records.length);
  let n = 0;
  for (const i of records) {
    const v = values[i];
    if (v === v) out[n++] = v;
  }
  return out.subarray(0, n);
}

/**
 * Dealt into buckets of equal width, then each sorted by itself. A bucket that holds much is dealt
 * again by its own range; one that holds most, as beside an absurd value, by the bits of its numbers,
 * which part what no equal width can.
 */
function* dealt(source: Source, range: Range): Task<Float64Array> {
  const { n, lo, hi } = range;
  const buckets = Math.min(MOST_BUCKETS, Math.ceil(n / PER_BUCKET));
  const perUnit = (buckets - 1) / (hi - lo);
  if (!(perUnit > 0 && perUnit < Infinity)) {
    const out = gathered(source, range);
    yield* byBits(out);
    return out;
  }
  const ends = new Int32Array(buckets + 1);
  const width: Width = { lo, perUnit };
  const length = lengthOf(source);
  yield* inStretches(length, (from, to) => countBuckets(source, width, ends, from, to));
  let most = 0;
  for (let b = 1; b <= buckets; b++) {
    if (ends[b] > most) most = ends[b];
    ends[b] += ends[b - 1];
  }
  yield undefined;
  const out = new Float64Array(n);
  yield* inStretches(length, (from, to) => dealInto(source, width, ends, out, from, to));
  // No value lies further from its place than its bucket is long: one run of insertion for all of
  // them, each stretch of it from so far before that none belongs further up.
  if (most <= SMALL_BUCKET)
    yield* inStretches(n, (from, to) => insertion(out, Math.max(0, from - SMALL_BUCKET), to));
  else yield* sortBuckets(out, ends);
  return out;
}

/** Where the buckets begin, and how many there are to a unit. */
interface Width {
  readonly lo: number;
  readonly perUnit: number;
}

/** Counts the values of a stretch by their buckets, each one place on. */
function countBuckets(
  { values, records }: Source,
  { lo, perUnit }: Width,
  counts: Int32Array,
  from: number,
  to: number,
): void {
  for (let k = from; k < to; k++) {
    const v = values[records === null ? k : records[k]];
    if (v === v) counts[(((v - lo) * perUnit) | 0) + 1]++;
  }
}

/** Puts the values of a stretch into their buckets. @param next the next place of each; it moves on */
function dealInto(
  { values, records }: Source,
  { lo, perUnit }: Width,
  next: Int32Array,
  out: Float64Array,
  from: number,
  to: number,
): void {
  for (let k = from; k < to; k++) {
    const v = values[records === null ? k : records[k]];
    if (v === v) out[next[((v - lo) * perUnit) | 0]++] = v;
  }
}

/** Sorts each bucket by itself. @param ends where each ends */
function* sortBuckets(values: Float64Array, ends: Int32Array): Task<void> {
  const due = pausing();
  for (let b = 0, from = 0; b < ends.length - 1; b++) {
    const to = ends[b];
    if (to - from < FEW) sortRun(values, from, to);
    else {
      const bucket = values.subarray(from, to);
      if (bucket.length > values.length / 2) yield* byBits(bucket);
      else {
        const part: Source = { values: bucket, records: null };
        bucket.set(yield* dealt(part, yield* rangeOf(part)));
      }
    }
    if (due(to)) yield undefined;
    from = to;
  }
}

function* rangeOf(source: Source): Task<Range> {
  const { values, records } = source;
  let n = 0;
  let lo = Infinity;
  let hi = -Infinity;
  yield* inStretches(lengthOf(source), (from, to) => {
    let there = n;
    let low = lo;
    let high = hi;
    for (let k = from; k < to; k++) {
      const v = values[records === null ? k : records[k]];
      if (v !== v) continue;
      there++;
      if (v < low) low = v;
      if (v > high) high = v;
    }
    n = there;
    lo = low;
    hi = high;
  });
  return { n, lo, hi };
}

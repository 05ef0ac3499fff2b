import { inStretches, STRIDE, type Steps } from '../steps/steps';
import { countedSort } from './countedSort';

/** Fewer values than this are sorted at one go. */
const FEW = 1 << 14;
/** Bits of a bucket's number: a million values come to a few in each bucket. */
const BITS = 18;
const SIGN = 0x80000000;
/** Buckets of no more than this are sorted by insertion. */
const INSERTED = 40;

/**
 * The values that are there over a selection, in rising order, with pauses.
 * @param records the selection, as record numbers
 */
export function* sortedValues(values: Float64Array, records: Int32Array): Steps<Float64Array> {
  const there = new Float64Array(records.length);
  let n = 0;
  yield* inStretches(records.length, (from, to) => {
    let at = n;
    for (let k = from; k < to; k++) {
      const v = values[records[k]];
      if (v === v) there[at++] = v;
    }
    n = at;
  });
  return yield* sortedInParts(there.subarray(0, n));
}

/**
 * Numbers (no NaN) in rising order, with pauses: counted where they lie on a grid; else dealt into
 * buckets by the highest bits in which they differ, and each bucket sorted (Knuth, The Art of
 * Computer Programming 3, 5.2.1 and 5.2.5). IEEE 754 bits rise as the numbers do once the sign bit
 * is turned, and all bits of negative numbers.
 * @param values is written over
 */
export function* sortedInParts(values: Float64Array): Steps<Float64Array> {
  if (values.length < FEW || !LITTLE_ENDIAN) return values.sort();
  const onGrid = yield* countedSort(values);
  if (onGrid) return onGrid;
  return yield* dealt(values);
}

const LITTLE_ENDIAN = new Uint8Array(new Uint32Array([1]).buffer)[0] === 1;

function* dealt(values: Float64Array): Steps<Float64Array> {
  const n = values.length;
  const bits = new Uint32Array(values.buffer, values.byteOffset, 2 * n);
  const span = yield* spanOf(bits);
  const ends = new Int32Array((1 << BITS) + 1);
  const buckets = new Int32Array(n);
  for (let start = 0; start < n; start += 2 * STRIDE) {
    countBuckets(bits, span, buckets, ends, start, Math.min(n, start + 2 * STRIDE));
    yield undefined;
  }
  for (let b = 1; b < ends.length; b++) ends[b] += ends[b - 1];
  const out = new Float64Array(n);
  for (let start = 0; start < n; start += 2 * STRIDE) {
    deal(values, buckets, ends, out, start, Math.min(n, start + 2 * STRIDE));
    yield undefined;
  }
  // Each bucket's place has moved on to where the next one begins.
  for (let b = 0, from = 0, paused = 0; b < 1 << BITS; b++) {
    const to = ends[b];
    if (to - from > INSERTED) yield* sortBucket(out.subarray(from, to), n);
    else insertion(out, from, to);
    if (to - paused > STRIDE) {
      paused = to;
      yield undefined;
    }
    from = to;
  }
  values.set(out);
  return values;
}

/** The bucket of a number: its bits, less the lowest ones there are, without the lowest `shift`. */
interface Span {
  readonly lowest: number;
  /** Bits of the high half that are dropped; below 0, bits of the low half that are taken in. */
  readonly shift: number;
}

function* spanOf(bits: Uint32Array): Steps<Span> {
  let [lowest, highest] = [0xffffffff, 0];
  for (let k = 1; k < bits.length; k += 2) {
    const high = bits[k] & SIGN ? ~bits[k] >>> 0 : (bits[k] | SIGN) >>> 0;
    if (high < lowest) lowest = high;
    if (high > highest) highest = high;
    if ((k & (4 * STRIDE - 1)) === 4 * STRIDE - 1) yield undefined;
  }
  return { lowest, shift: 32 - Math.clz32(highest - lowest) - BITS };
}

function countBuckets(
  bits: Uint32Array,
  { lowest, shift }: Span,
  buckets: Int32Array,
  ends: Int32Array,
  start: number,
  end: number,
): void {
  for (let k = start; k < end; k++) {
    let low = bits[2 * k];
    let high = bits[2 * k + 1];
    if (high & SIGN) {
      low = ~low >>> 0;
      high = ~high >>> 0;
    } else high = (high | SIGN) >>> 0;
    const bucket =
      shift >= 0 ? (high - lowest) >>> shift : ((high - lowest) << -shift) | (low >>> (32 + shift));
    buckets[k] = bucket;
    ends[bucket + 1]++;
  }
}

function deal(
  values: Float64Array,
  buckets: Int32Array,
  ends: Int32Array,
  out: Float64Array,
  start: number,
  end: number,
): void {
  for (let k = start; k < end; k++) out[ends[buckets[k]]++] = values[k];
}

/** A bucket that holds much: dealt again by lower bits, unless it is all that there was. */
function* sortBucket(bucket: Float64Array, all: number): Steps<void> {
  if (bucket.length < FEW || bucket.length === all) bucket.sort();
  else yield* dealt(bucket);
}

/** −0 comes before 0, as in `Float64Array.sort`. */
function insertion(out: Float64Array, from: number, to: number): void {
  for (let k = from + 1; k < to; k++) {
    const v = out[k];
    let at = k;
    while (at > from && (out[at - 1] > v || (v === 0 && out[at - 1] === 0 && 1 / v < 0))) {
      out[at] = out[at - 1];
      at--;
    }
    out[at] = v;
  }
}

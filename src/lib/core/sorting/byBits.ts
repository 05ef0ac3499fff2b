import { inStretches, STRIDE, type Task } from '../task/task';
import { sortRun } from './sortRun';

/** Fewer values than this are sorted at one go. */
const FEW = 1 << 14;
const BITS = 16;
const SIGN = 0x80000000;
const LITTLE_ENDIAN = new Uint8Array(new Uint32Array([1]).buffer)[0] === 1;

/**
 * Sorts numbers (no NaN) in place, with pauses, however unevenly they lie: dealt into buckets by the
 * highest bits in which they differ (Knuth, The Art of Computer Programming 3, 5.2.5). IEEE 754 bits
 * rise as the numbers do once the sign bit is turned, and all bits of negative numbers.
 */
export function* byBits(values: Float64Array): Task<void> {
  const n = values.length;
  if (n < FEW || !LITTLE_ENDIAN) return void values.sort();
  const bits = new Uint32Array(values.buffer, values.byteOffset, 2 * n);
  const span = yield* spanOf(bits);
  const ends = new Int32Array((1 << BITS) + 1);
  const buckets = new Int32Array(n);
  yield* inStretches(n, (from, to) => numberBuckets(bits, span, buckets, ends, from, to));
  for (let b = 1; b < ends.length; b++) ends[b] += ends[b - 1];
  const dealt = new Float64Array(n);
  yield* inStretches(n, (from, to) => {
    for (let k = from; k < to; k++) dealt[ends[buckets[k]]++] = values[k];
  });
  values.set(dealt);
  yield undefined;
  // Each bucket's place has moved on to where the next one begins.
  for (let b = 0, from = 0, paused = 0; b < 1 << BITS; b++) {
    const to = ends[b];
    // One bucket of all: they differ in no bit that is left.
    if (to - from < FEW || to - from === n) sortRun(values, from, to);
    else yield* byBits(values.subarray(from, to));
    if (to - paused > STRIDE) {
      paused = to;
      yield undefined;
    }
    from = to;
  }
}

/** The bucket of a number: its bits, less the lowest ones there are, without the lowest `shift`. */
interface Span {
  readonly lowest: number;
  /** Bits of the high half that are dropped; below 0, bits of the low half that are taken in. */
  readonly shift: number;
}

function* spanOf(bits: Uint32Array): Task<Span> {
  let lowest = 0xffffffff;
  let highest = 0;
  yield* inStretches(bits.length >> 1, (from, to) => {
    let low = lowest;
    let high = highest;
    for (let k = from; k < to; k++) {
      const word = bits[2 * k + 1];
      const rising = word & SIGN ? ~word >>> 0 : (word | SIGN) >>> 0;
      if (rising < low) low = rising;
      if (rising > high) high = rising;
    }
    [lowest, highest] = [low, high];
  });
  return { lowest, shift: 32 - Math.clz32(highest - lowest) - BITS };
}

/** Notes the bucket of each number of a stretch, and counts it one place on. */
function numberBuckets(
  bits: Uint32Array,
  { lowest, shift }: Span,
  buckets: Int32Array,
  counts: Int32Array,
  from: number,
  to: number,
): void {
  for (let k = from; k < to; k++) {
    let low = bits[2 * k];
    let high = bits[2 * k + 1];
    if (high & SIGN) {
      low = ~low >>> 0;
      high = ~high >>> 0;
    } else high = (high | SIGN) >>> 0;
    const bucket =
      shift >= 0 ? (high - lowest) >>> shift : ((high - lowest) << -shift) | (low >>> (32 + shift));
    buckets[k] = bucket;
    counts[bucket + 1]++;
  }
}

import { STRIDE, type Steps } from '../steps/steps';

/** Fewer values than this are sorted at one go. */
const FEW = 1 << 14;
const BITS = 11;
const SIZE = 1 << BITS;
const MASK = SIZE - 1;
/** Digits of 64 bits, from the lowest. */
const DIGITS = 6;
const SIGN = 0x80000000;

/**
 * The values that are there over a selection, in rising order, with pauses.
 * @param records the selection, as record numbers
 */
export function* sortedValues(values: Float64Array, records: Int32Array): Steps<Float64Array> {
  const there = new Float64Array(records.length);
  let n = 0;
  for (let from = 0; from < records.length; from += 8 * STRIDE) {
    const to = Math.min(records.length, from + 8 * STRIDE);
    for (let k = from; k < to; k++) {
      const v = values[records[k]];
      if (v === v) there[n++] = v;
    }
    yield undefined;
  }
  return yield* sortedInParts(there.subarray(0, n));
}

/** The 32-bit halves of numbers as keys that rise as the numbers do. */
interface Halves {
  readonly low: Uint32Array;
  readonly high: Uint32Array;
}

/**
 * Numbers (no NaN) in rising order, with pauses, by a radix sort from the lowest digit (Knuth, The
 * Art of Computer Programming 3, 5.2.5) over their IEEE 754 bits: with the sign bit turned, and all
 * bits of negative numbers, these rise as the numbers do. Digits that all share cost nothing.
 * @param values is moved about
 */
export function* sortedInParts(values: Float64Array): Steps<Float64Array> {
  const n = values.length;
  if (n < FEW || !LITTLE_ENDIAN) return values.sort();
  const bits = new Uint32Array(values.buffer, values.byteOffset, 2 * n);
  let from: Halves = { low: new Uint32Array(n), high: new Uint32Array(n) };
  let to: Halves = { low: new Uint32Array(n), high: new Uint32Array(n) };
  const counts = new Int32Array(DIGITS * SIZE);
  for (let start = 0; start < n; start += 4 * STRIDE) {
    countDigits(bits, from, counts, start, Math.min(n, start + 4 * STRIDE));
    yield undefined;
  }
  for (let digit = 0; digit < DIGITS; digit++) {
    const at = counts.subarray(digit * SIZE, (digit + 1) * SIZE);
    if (at.includes(n)) continue;
    let sum = 0;
    for (let d = 0; d < SIZE; d++) {
      const here = at[d];
      at[d] = sum;
      sum += here;
    }
    for (let start = 0; start < n; start += 2 * STRIDE) {
      move(from, to, at, digit, start, Math.min(n, start + 2 * STRIDE));
      yield undefined;
    }
    [from, to] = [to, from];
  }
  for (let start = 0; start < n; start += 8 * STRIDE) {
    writeBack(from, bits, start, Math.min(n, start + 8 * STRIDE));
    yield undefined;
  }
  return values;
}

const LITTLE_ENDIAN = new Uint8Array(new Uint32Array([1]).buffer)[0] === 1;

/** Takes the bits of values over as rising keys, and counts every digit. */
function countDigits(
  bits: Uint32Array,
  { low, high }: Halves,
  counts: Int32Array,
  start: number,
  end: number,
): void {
  for (let k = start; k < end; k++) {
    let l = bits[2 * k];
    let h = bits[2 * k + 1];
    if (h & SIGN) {
      l = ~l >>> 0;
      h = ~h >>> 0;
    } else h = (h | SIGN) >>> 0;
    low[k] = l;
    high[k] = h;
    counts[l & MASK]++;
    counts[SIZE + ((l >>> 11) & MASK)]++;
    counts[2 * SIZE + ((l >>> 22) | ((h & 1) << 10))]++;
    counts[3 * SIZE + ((h >>> 1) & MASK)]++;
    counts[4 * SIZE + ((h >>> 12) & MASK)]++;
    counts[5 * SIZE + (h >>> 23)]++;
  }
}

/** Moves a stretch of keys to their places by one digit. */
function move(
  from: Halves,
  to: Halves,
  at: Int32Array,
  digit: number,
  start: number,
  end: number,
): void {
  const { low, high } = from;
  for (let k = start; k < end; k++) {
    const l = low[k];
    const h = high[k];
    const place = at[digitOf(l, h, digit)]++;
    to.low[place] = l;
    to.high[place] = h;
  }
}

function digitOf(low: number, high: number, digit: number): number {
  switch (digit) {
    case 0:
      return low & MASK;
    case 1:
      return (low >>> 11) & MASK;
    case 2:
      return (low >>> 22) | ((high & 1) << 10);
    case 3:
      return (high >>> 1) & MASK;
    case 4:
      return (high >>> 12) & MASK;
    default:
      return high >>> 23;
  }
}

function writeBack({ low, high }: Halves, bits: Uint32Array, start: number, end: number): void {
  for (let k = start; k < end; k++) {
    const negative = (high[k] & SIGN) === 0;
    bits[2 * k] = negative ? ~low[k] : low[k];
    bits[2 * k + 1] = negative ? ~high[k] : high[k] & ~SIGN;
  }
}

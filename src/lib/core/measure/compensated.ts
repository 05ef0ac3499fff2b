import { inStretches, type Task } from '../task/task';

/**
 * A sum that keeps the low parts that additions lose and adds them at the end (Neumaier 1974, with
 * Knuth's two-sum, which needs no branch). A sum past the range of doubles has no meaningful low part.
 */
export class CompensatedSum {
  #high = 0;
  #low = 0;

  add(x: number): void {
    const t = this.#high + x;
    const b = t - this.#high;
    this.#low += this.#high - (t - b) + (x - b);
    this.#high = t;
  }

  get value(): number {
    return Number.isFinite(this.#low) ? this.#high + this.#low : this.#high;
  }
}

/** In numbers divided by it no sum of a list overflows; a power of two loses no digit. */
export const SCALE = 2 ** 60;

/** The compensated sum of some numbers; 0 of none. */
export function sumOf(values: Iterable<number>): number {
  const sum = new CompensatedSum();
  for (const v of values) sum.add(v);
  return sum.value;
}

/** A sum straight over records, without any group. */
export interface DirectTotal {
  readonly total: number;
  readonly values: number;
  /** Σ|x|: rounding may take such a sum apart by values · 2⁻⁵² of it. */
  readonly magnitude: number;
}

/** Sum, count and magnitude of the values that are there. */
export function* directTotal(values: Float64Array, records: Int32Array): Task<DirectTotal> {
  let so: Running = { high: 0, low: 0, magnitude: 0, n: 0 };
  yield* inStretches(records.length, (from, to) => {
    so = addStretch(so, values, records, from, to);
  });
  const { high, low, magnitude, n } = so;
  if (Number.isFinite(low)) return { total: high + low, values: n, magnitude };
  // It may only have overflowed on the way.
  const scaled = new CompensatedSum();
  yield* inStretches(records.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const x = values[records[k]];
      if (x === x) scaled.add(x / SCALE);
    }
  });
  return { total: scaled.value * SCALE, values: n, magnitude };
}

interface Running {
  readonly high: number;
  readonly low: number;
  readonly magnitude: number;
  readonly n: number;
}

/** The compensated sum written out: a call for each record would cost as much again. */
function addStretch(
  before: Running,
  values: Float64Array,
  records: Int32Array,
  from: number,
  to: number,
): Running {
  let high = before.high;
  let low = before.low;
  let magnitude = before.magnitude;
  let n = before.n;
  for (let k = from; k < to; k++) {
    const x = values[records[k]];
    if (x === x) {
      const t = high + x;
      const b = t - high;
      low += high - (t - b) + (x - b);
      high = t;
      magnitude += Math.abs(x);
      n += 1;
    }
  }
  return { high, low, magnitude, n };
}

/** How far rounding may take a sum apart from its parts. */
export const roundingBound = ({ values, magnitude }: DirectTotal): number =>
  values * 2 ** -52 * magnitude;

import { filled } from '../task/arrays';
import type { Task } from '../task/task';

/**
 * What one column comes to in each of many groups so far: an array for each fact, a place for each
 * group. Arrays of facts that are not looked for are empty.
 */
export interface Accumulators {
  readonly count: Float64Array;
  /** Sums, and the low parts that their additions lost. */
  readonly high: Float64Array;
  readonly low: Float64Array;
  /** The largest size, −1 without values, and its record: with sums alone. */
  readonly reach: Float64Array;
  readonly farAt: Int32Array;
  /** The lowest and the highest, squares, and the records of the extremes, −1 without values. */
  readonly min: Float64Array;
  readonly max: Float64Array;
  readonly squares: Float64Array;
  readonly minAt: Int32Array;
  readonly maxAt: Int32Array;
}

/** What is looked for: sums alone, or extremes and squares besides. */
export type Extent = 'sums' | 'extremes';

export function* newAccumulators(size: number, extent: Extent): Task<Accumulators> {
  const [ofSums, ofExtremes] = extent === 'sums' ? [size, 0] : [0, size];
  return {
    count: new Float64Array(size),
    high: new Float64Array(size),
    low: new Float64Array(size),
    reach: yield* filled(new Float64Array(ofSums), -1),
    farAt: yield* filled(new Int32Array(ofSums), -1),
    min: yield* filled(new Float64Array(ofExtremes), Infinity),
    max: yield* filled(new Float64Array(ofExtremes), -Infinity),
    squares: new Float64Array(ofExtremes),
    minAt: yield* filled(new Int32Array(ofExtremes), -1),
    maxAt: yield* filled(new Int32Array(ofExtremes), -1),
  };
}

/*
 * Loops over a stretch of a selection. Knuth's two-sum gives the lost part of each addition without a
 * branch. All is written out, for many groups and for one: a call for each record would cost as much
 * again, and what an array keeps for each group stays at hand where there is only one.
 */

/** Counts, sums and the value that is largest by size. */
export function sumGroups(
  of: Accumulators,
  values: Float64Array,
  groupOf: Int32Array,
  records: Int32Array,
  from: number,
  to: number,
): void {
  const { count, high, low, reach, farAt } = of;
  for (let k = from; k < to; k++) {
    const i = records[k];
    const x = values[i];
    if (x === x) {
      const g = groupOf[i];
      count[g] += 1;
      const s = high[g];
      const t = s + x;
      high[g] = t;
      const b = t - s;
      low[g] += s - (t - b) + (x - b);
      const size = Math.abs(x);
      if (size > reach[g]) {
        reach[g] = size;
        farAt[g] = i;
      }
    }
  }
}

/** The same of a single group. */
export function sumOne(
  of: Accumulators,
  values: Float64Array,
  records: Int32Array,
  from: number,
  to: number,
): void {
  let count = of.count[0];
  let high = of.high[0];
  let low = of.low[0];
  let reach = of.reach[0];
  let farAt = of.farAt[0];
  for (let k = from; k < to; k++) {
    const i = records[k];
    const x = values[i];
    if (x === x) {
      count += 1;
      const t = high + x;
      const b = t - high;
      low += high - (t - b) + (x - b);
      high = t;
      const size = Math.abs(x);
      if (size > reach) {
        reach = size;
        farAt = i;
      }
    }
  }
  of.count[0] = count;
  of.high[0] = high;
  of.low[0] = low;
  of.reach[0] = reach;
  of.farAt[0] = farAt;
}

/** Counts, sums, extremes and squares about a shift. */
export function accumulate(
  of: Accumulators,
  values: Float64Array,
  groupOf: Int32Array,
  records: Int32Array,
  from: number,
  to: number,
  shift: number,
): void {
  const { count, high, low, min, max, squares, minAt, maxAt } = of;
  for (let k = from; k < to; k++) {
    const i = records[k];
    const x = values[i];
    if (x === x) {
      const g = groupOf[i];
      count[g] += 1;
      const s = high[g];
      const t = s + x;
      high[g] = t;
      const b = t - s;
      low[g] += s - (t - b) + (x - b);
      if (x < min[g]) {
        min[g] = x;
        minAt[g] = i;
      }
      if (x > max[g]) {
        max[g] = x;
        maxAt[g] = i;
      }
      const d = x - shift;
      squares[g] += d * d;
    }
  }
}

/** The same of a single group. */
export function accumulateOne(
  of: Accumulators,
  values: Float64Array,
  records: Int32Array,
  from: number,
  to: number,
  shift: number,
): void {
  let count = of.count[0];
  let high = of.high[0];
  let low = of.low[0];
  let squares = of.squares[0];
  let min = of.min[0];
  let max = of.max[0];
  let minAt = of.minAt[0];
  let maxAt = of.maxAt[0];
  for (let k = from; k < to; k++) {
    const i = records[k];
    const x = values[i];
    if (x !== x) continue;
    count++;
    const t = high + x;
    const b = t - high;
    low += high - (t - b) + (x - b);
    high = t;
    if (x < min) {
      min = x;
      minAt = i;
    }
    if (x > max) {
      max = x;
      maxAt = i;
    }
    const d = x - shift;
    squares += d * d;
  }
  of.count[0] = count;
  of.high[0] = high;
  of.low[0] = low;
  of.squares[0] = squares;
  of.min[0] = min;
  of.max[0] = max;
  of.minAt[0] = minAt;
  of.maxAt[0] = maxAt;
}

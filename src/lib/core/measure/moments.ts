import { numbersOf } from '../task/arrays';
import { CompensatedSum, SCALE } from './compensated';
import { inStretches, STRIDE, type Task } from '../task/task';
import {
  accumulate,
  accumulateOne,
  newAccumulators,
  sumGroups,
  sumOne,
  type Accumulators,
  type Extent,
} from './accumulate';
import { mergeExtremes, mergeFarthest, mergeSquares, mergeSums } from './mergeGroups';

/** What a column comes to in each of many groups; `squares` is Σ(x − mean)². */
export interface Aggregates {
  readonly count: Float64Array;
  readonly sum: Float64Array;
  readonly lowest: Float64Array;
  readonly highest: Float64Array;
  readonly squares: Float64Array;
}

/**
 * Count, compensated sum, lowest, highest and the sum of squared deviations of one column in each
 * of many groups. Merges exactly as far as doubles go.
 *
 * Sums: Neumaier (1974), the lost low parts kept apart and added at the end. Squared deviations:
 * about a shift near the mean, or in two passes where that would lose digits; merging after Chan,
 * Golub and LeVeque (1983).
 */
export class Moments {
  readonly #of: Accumulators;

  private constructor(
    readonly size: number,
    readonly extent: Extent,
    of: Accumulators,
  ) {
    this.#of = of;
  }

  /** Those of groups without values so far. */
  static *none(size: number, extent: Extent): Task<Moments> {
    return new Moments(size, extent, yield* newAccumulators(size, extent));
  }

  /**
   * Groups of equal values: group g is so many times the one value. None where the value is NaN.
   * The product is exact: what it loses stands in the low part (Dekker 1971).
   */
  static *ofEqual(values: Float64Array, times: Float64Array): Task<Moments> {
    const of = yield* newAccumulators(values.length, 'extremes');
    yield* inStretches(values.length, (from, to) => {
      for (let g = from; g < to; g++) {
        const [x, n] = [values[g], times[g]];
        if (x !== x || n === 0) continue;
        of.count[g] = n;
        of.high[g] = x * n;
        const lost = productError(x, n);
        of.low[g] = Number.isFinite(lost) ? lost : 0;
        of.min[g] = of.max[g] = x;
        of.minAt[g] = of.maxAt[g] = g;
      }
    });
    return new Moments(values.length, 'extremes', of);
  }

  /** Those that another has put together, as a database does: group g is the g-th of each. */
  static *ofAggregates({ count, sum, lowest, highest, squares }: Aggregates): Task<Moments> {
    const of = yield* newAccumulators(count.length, 'extremes');
    yield* inStretches(count.length, (from, to) => {
      for (let g = from; g < to; g++) {
        if (count[g] === 0) continue;
        of.count[g] = count[g];
        of.high[g] = sum[g];
        of.min[g] = lowest[g];
        of.max[g] = highest[g];
        of.squares[g] = squares[g];
        of.minAt[g] = of.maxAt[g] = g;
      }
    });
    return new Moments(count.length, 'extremes', of);
  }

  count(group: number): number {
    return this.#of.count[group];
  }

  sum(group: number): number {
    return this.#of.high[group] + this.#of.low[group];
  }

  /** NaN without values. */
  mean(group: number): number {
    return this.#of.count[group] ? this.sum(group) / this.#of.count[group] : NaN;
  }

  /** NaN without values; so is `max`. Both are of extremes only. */
  min(group: number): number {
    return this.#of.count[group] ? this.#of.min[group] : NaN;
  }

  max(group: number): number {
    return this.#of.count[group] ? this.#of.max[group] : NaN;
  }

  /** Σ(x − mean)²; 0 where it was not asked for. */
  squares(group: number): number {
    return this.extent === 'sums' ? 0 : this.#of.squares[group];
  }

  /** Σ(x − mean)² ÷ (n − 1), its root; NaN under two values. */
  deviation(group: number): number {
    const n = this.#of.count[group];
    return n < 2 ? NaN : Math.sqrt(Math.max(0, this.squares(group)) / (n - 1));
  }

  /**
   * The record whose value lies farthest from another, the first one of equals; -1 without values.
   * From 0 whatever was computed; from elsewhere where extremes were.
   */
  farthest(group: number, from: number): number {
    if (this.extent === 'sums') return from === 0 ? this.#of.farAt[group] : -1;
    const [low, high] = [this.#of.minAt[group], this.#of.maxAt[group]];
    const [below, above] = [
      Math.abs(this.#of.min[group] - from),
      Math.abs(this.#of.max[group] - from),
    ];
    return below > above || (below === above && low < high) ? low : high;
  }

  /** Adds a group of another set of the same extent into one of this. */
  merge(into: number, other: Moments, from: number): void {
    const of = other.#of;
    if (of.count[from] === 0) return;
    if (this.extent === 'sums') mergeFarthest(this.#of, into, of, from);
    else {
      mergeSquares(this.#of, into, of, from);
      mergeExtremes(this.#of, into, of, from);
    }
    mergeSums(this.#of, into, of, from);
  }

  /** Groups put together by a grouping of theirs; -1: in none. */
  *merged(size: number, of: Int32Array): Task<Moments> {
    const out = yield* Moments.none(size, this.extent);
    yield* inStretches(
      this.size,
      (from, to) => {
        for (let g = from; g < to; g++) if (of[g] >= 0) out.merge(of[g], this, g);
      },
      MERGED,
    );
    return out;
  }

  /**
   * Takes in the values of a selection, each into its record's group.
   * @param values NaN: missing
   * @param groupOf group of each record of the list, 0..size-1; not looked at where there is one group
   * @param records the selection, as record numbers
   */
  *add(
    values: Float64Array,
    groupOf: Int32Array,
    records: Int32Array,
    squares: boolean,
  ): Task<void> {
    if (records.length === 0) return;
    const shift = squares ? roughMean(values, records) : 0;
    yield* inStretches(records.length, (from, to) => {
      if (this.size === 1) accumulateOne(this.#of, values, records, from, to, shift);
      else accumulate(this.#of, values, groupOf, records, from, to, shift);
    });
    yield* this.#settleSums(values, groupOf, records);
    if (!squares) this.#of.squares.fill(0);
    else if (!(yield* this.#centre(shift))) yield* this.#deviations(values, groupOf, records);
  }

  /** Counts and compensated sums alone, for measures that need no more. */
  *addSums(values: Float64Array, groupOf: Int32Array, records: Int32Array): Task<void> {
    yield* inStretches(records.length, (from, to) => {
      if (this.size === 1) sumOne(this.#of, values, records, from, to);
      else sumGroups(this.#of, values, groupOf, records, from, to);
    });
    yield* this.#settleSums(values, groupOf, records);
  }

  /**
   * An overflowing sum leaves no meaningful low part. One that only overflowed on the way, 1e308 + 1e308 − 1e308, is
   * added once more in a smaller scale, in which nothing overflows.
   */
  *#settleSums(values: Float64Array, groupOf: Int32Array, records: Int32Array): Task<void> {
    const { low, high } = this.#of;
    const past = new Map<number, CompensatedSum>();
    yield* inStretches(low.length, (from, to) => {
      for (let g = from; g < to; g++) {
        if (Number.isFinite(low[g])) continue;
        low[g] = 0;
        past.set(g, new CompensatedSum());
      }
    });
    if (past.size === 0) return;
    yield* inStretches(records.length, (from, to) => {
      for (let k = from; k < to; k++) {
        const x = values[records[k]];
        if (x === x) past.get(this.size === 1 ? 0 : groupOf[records[k]])?.add(x / SCALE);
      }
    });
    for (const [g, sum] of past) high[g] = sum.value * SCALE;
  }

  /**
   * From squares about the shift to squares about each mean: Σ(x−c)² − n(mean−c)².
   * @returns false where a group lies so far from the shift that digits would be lost
   */
  *#centre(shift: number): Task<boolean> {
    const { count, high, low, squares } = this.#of;
    let isNear = true;
    yield* inStretches(this.size, (from, to) => {
      for (let g = from; g < to && isNear; g++) {
        const n = count[g];
        if (n === 0) continue;
        const away = (high[g] - n * shift + low[g]) / n;
        const taken = n * away * away;
        const left = squares[g] - taken;
        isNear = taken <= 16 * left;
        squares[g] = left;
      }
    });
    return isNear;
  }

  /** The corrected two-pass form: squares about the mean, less what the mean's rounding adds. */
  *#deviations(values: Float64Array, groupOf: Int32Array, records: Int32Array): Task<void> {
    const squares = this.#of.squares.fill(0);
    const drift = new Float64Array(this.size);
    const means = yield* numbersOf(this.size, (g) => this.mean(g));
    yield* inStretches(records.length, (from, to) => {
      for (let k = from; k < to; k++) {
        const i = records[k];
        const x = values[i];
        if (x !== x) continue;
        const g = groupOf[i];
        const d = x - means[g];
        squares[g] += d * d;
        drift[g] += d;
      }
    });
    const { count } = this.#of;
    yield* inStretches(this.size, (from, to) => {
      for (let g = from; g < to; g++) if (count[g]) squares[g] -= (drift[g] * drift[g]) / count[g];
    });
  }
}

/** Groups merged between two pauses: each is looked up in many arrays. */
const MERGED = STRIDE >> 3;

/** Splits a double into two halves whose products are exact (Veltkamp; Dekker 1971). */
const SPLIT = 2 ** 27 + 1;

/** a·b less the double that is nearest to it. */
function productError(a: number, b: number): number {
  const [ac, bc] = [SPLIT * a, SPLIT * b];
  const [ah, bh] = [ac - (ac - a), bc - (bc - b)];
  const [al, bl] = [a - ah, b - bh];
  return al * bl - (a * b - ah * bh - al * bh - ah * bl);
}

/** The mean of up to 64 values, even over the selection; 0 without any. */
function roughMean(values: Float64Array, records: Int32Array): number {
  const stride = Math.max(1, Math.floor(records.length / 64));
  let sum = 0;
  let n = 0;
  for (let k = 0; k < records.length; k += stride) {
    const x = values[records[k]];
    if (x === x) {
      sum += x;
      n++;
    }
  }
  return n && Number.isFinite(sum) ? sum / n : 0;
}

/**
 * Moments of a column in each group, over a selection.
 * @param squares whether the squared deviations are wanted
 */
export function* momentsOfGroups(
  values: Float64Array,
  groupOf: Int32Array,
  size: number,
  records: Int32Array,
  squares: boolean,
): Task<Moments> {
  const m = yield* Moments.none(size, 'extremes');
  yield* m.add(values, groupOf, records, squares);
  return m;
}

const NO_GROUPS = new Int32Array(0);

/** The same of a whole selection, as one group. */
export const momentsOf = (
  values: Float64Array,
  records: Int32Array,
  squares: boolean,
): Task<Moments> => momentsOfGroups(values, NO_GROUPS, 1, records, squares);

/** Counts and sums of a column in each group; lowest, highest and deviations are not computed. */
export function* sumsOfGroups(
  values: Float64Array,
  groupOf: Int32Array,
  size: number,
  records: Int32Array,
): Task<Moments> {
  const m = yield* Moments.none(size, 'sums');
  yield* m.addSums(values, groupOf, records);
  return m;
}

import { inStretches, type Steps } from '../steps/steps';
import {
  accumulate,
  accumulateOne,
  newAccumulators,
  sumGroups,
  sumOne,
  type Accumulators,
} from './accumulate';

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

  constructor(readonly size: number) {
    this.#of = newAccumulators(size);
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

  /** NaN without values; so is `max`. */
  min(group: number): number {
    return this.#of.count[group] ? this.#of.min[group] : NaN;
  }

  max(group: number): number {
    return this.#of.count[group] ? this.#of.max[group] : NaN;
  }

  /** Σ(x − mean)²; 0 where it was not asked for. */
  squares(group: number): number {
    return this.#of.squares[group];
  }

  /** Σ(x − mean)² ÷ (n − 1), its root; NaN under two values. */
  deviation(group: number): number {
    const n = this.#of.count[group];
    return n < 2 ? NaN : Math.sqrt(Math.max(0, this.#of.squares[group]) / (n - 1));
  }

  /**
   * The record whose value lies farthest from another, the first one of equals; -1 without values.
   * From 0 whatever was computed; from elsewhere where extremes were.
   */
  farthest(group: number, from: number): number {
    const [low, high] = [this.#of.minAt[group], this.#of.maxAt[group]];
    if (low < 0) return from === 0 ? this.#of.farAt[group] : -1;
    const [below, above] = [
      Math.abs(this.#of.min[group] - from),
      Math.abs(this.#of.max[group] - from),
    ];
    return below > above || (below === above && low < high) ? low : high;
  }

  /** Adds a group of another set into one of this. */
  merge(into: number, other: Moments, from: number): void {
    const [na, nb] = [this.#of.count[into], other.#of.count[from]];
    if (nb === 0) return;
    if (na > 0) {
      const delta = other.mean(from) - this.mean(into);
      this.#of.squares[into] += other.#of.squares[from] + (delta * delta * na * nb) / (na + nb);
    } else this.#of.squares[into] = other.#of.squares[from];
    this.#of.count[into] = na + nb;
    const s = this.#of.high[into];
    const t = s + other.#of.high[from];
    const b = t - s;
    this.#of.low[into] += s - (t - b) + (other.#of.high[from] - b) + other.#of.low[from];
    this.#of.high[into] = t;
    if (other.#of.farAt[from] >= 0) {
      const [own, its] = [this.#of.reach[into], other.#of.reach[from]];
      if (its > own || (its === own && other.#of.farAt[from] < this.#of.farAt[into])) {
        this.#of.reach[into] = its;
        this.#of.farAt[into] = other.#of.farAt[from];
      }
      return;
    }
    const [low, high] = [other.#of.min[from], other.#of.max[from]];
    const [lowAt, highAt] = [other.#of.minAt[from], other.#of.maxAt[from]];
    if (low < this.#of.min[into] || (low === this.#of.min[into] && lowAt < this.#of.minAt[into])) {
      this.#of.min[into] = low;
      this.#of.minAt[into] = lowAt;
    }
    if (
      high > this.#of.max[into] ||
      (high === this.#of.max[into] && highAt < this.#of.maxAt[into])
    ) {
      this.#of.max[into] = high;
      this.#of.maxAt[into] = highAt;
    }
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
  ): Steps<void> {
    if (records.length === 0) return;
    const shift = squares ? roughMean(values, records) : 0;
    yield* inStretches(records.length, (from, to) => {
      if (this.size === 1) accumulateOne(this.#of, values, records, from, to, shift);
      else accumulate(this.#of, values, groupOf, records, from, to, shift);
    });
    // An overflowing sum leaves no meaningful low part.
    for (let g = 0; g < this.size; g++) if (!Number.isFinite(this.#of.low[g])) this.#of.low[g] = 0;
    if (!squares) this.#of.squares.fill(0);
    else if (!this.#centre(shift)) yield* this.#deviations(values, groupOf, records);
  }

  /** Counts and compensated sums alone, for measures that need no more. */
  *addSums(values: Float64Array, groupOf: Int32Array, records: Int32Array): Steps<void> {
    yield* inStretches(records.length, (from, to) => {
      if (this.size === 1) sumOne(this.#of, values, records, from, to);
      else sumGroups(this.#of, values, groupOf, records, from, to);
    });
    for (let g = 0; g < this.size; g++) if (!Number.isFinite(this.#of.low[g])) this.#of.low[g] = 0;
  }

  /**
   * From squares about the shift to squares about each mean: Σ(x−c)² − n(mean−c)².
   * @returns false where a group lies so far from the shift that digits would be lost
   */
  #centre(shift: number): boolean {
    for (let g = 0; g < this.size; g++) {
      const n = this.#of.count[g];
      if (n === 0) continue;
      const away = (this.#of.high[g] - n * shift + this.#of.low[g]) / n;
      const taken = n * away * away;
      const left = this.#of.squares[g] - taken;
      if (taken > 16 * left) return false;
      this.#of.squares[g] = left;
    }
    return true;
  }

  /** The corrected two-pass form: squares about the mean, less what the mean's rounding adds. */
  *#deviations(values: Float64Array, groupOf: Int32Array, records: Int32Array): Steps<void> {
    const squares = this.#of.squares.fill(0);
    const drift = new Float64Array(this.size);
    const means = Float64Array.from({ length: this.size }, (_, g) => this.mean(g));
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
    for (let g = 0; g < this.size; g++)
      if (this.#of.count[g]) squares[g] -= (drift[g] * drift[g]) / this.#of.count[g];
  }
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
): Steps<Moments> {
  const m = new Moments(size);
  yield* m.add(values, groupOf, records, squares);
  return m;
}

const NO_GROUPS = new Int32Array(0);

/** The same of a whole selection, as one group. */
export const momentsOf = (
  values: Float64Array,
  records: Int32Array,
  squares: boolean,
): Steps<Moments> => momentsOfGroups(values, NO_GROUPS, 1, records, squares);

/** Counts and sums of a column in each group; lowest, highest and deviations are not computed. */
export function* sumsOfGroups(
  values: Float64Array,
  groupOf: Int32Array,
  size: number,
  records: Int32Array,
): Steps<Moments> {
  const m = new Moments(size);
  yield* m.addSums(values, groupOf, records);
  return m;
}

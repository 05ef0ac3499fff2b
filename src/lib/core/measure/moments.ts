import { inStretches, type Steps } from '../steps/steps';

/**
 * Count, compensated sum, lowest, highest and the sum of squared deviations of one column in each
 * of many groups. Merges exactly as far as doubles go.
 *
 * Sums: Neumaier (1974), the lost low parts kept apart and added at the end. Squared deviations:
 * about a shift near the mean, or in two passes where that would lose digits; merging after Chan,
 * Golub and LeVeque (1983).
 */
export class Moments {
  readonly #count: Float64Array;
  readonly #high: Float64Array;
  readonly #low: Float64Array;
  readonly #min: Float64Array;
  readonly #max: Float64Array;
  readonly #squares: Float64Array;
  /** Records of the lowest, the highest and the largest value by size; -1: none, or not looked for. */
  readonly #minAt: Int32Array;
  readonly #maxAt: Int32Array;
  readonly #farAt: Int32Array;
  /** The largest size; −1: not looked for. */
  readonly #reach: Float64Array;

  constructor(readonly size: number) {
    this.#count = new Float64Array(size);
    this.#high = new Float64Array(size);
    this.#low = new Float64Array(size);
    this.#min = new Float64Array(size).fill(Infinity);
    this.#max = new Float64Array(size).fill(-Infinity);
    this.#squares = new Float64Array(size);
    this.#minAt = new Int32Array(size).fill(-1);
    this.#maxAt = new Int32Array(size).fill(-1);
    this.#farAt = new Int32Array(size).fill(-1);
    this.#reach = new Float64Array(size).fill(-1);
  }

  count(group: number): number {
    return this.#count[group];
  }

  sum(group: number): number {
    return this.#high[group] + this.#low[group];
  }

  /** NaN without values. */
  mean(group: number): number {
    return this.#count[group] ? this.sum(group) / this.#count[group] : NaN;
  }

  /** NaN without values; so is `max`. */
  min(group: number): number {
    return this.#count[group] ? this.#min[group] : NaN;
  }

  max(group: number): number {
    return this.#count[group] ? this.#max[group] : NaN;
  }

  /** Σ(x − mean)²; 0 where it was not asked for. */
  squares(group: number): number {
    return this.#squares[group];
  }

  /** Σ(x − mean)² ÷ (n − 1), its root; NaN under two values. */
  deviation(group: number): number {
    const n = this.#count[group];
    return n < 2 ? NaN : Math.sqrt(Math.max(0, this.#squares[group]) / (n - 1));
  }

  /**
   * The record whose value lies farthest from another, the first one of equals; -1 without values.
   * From 0 whatever was computed; from elsewhere where extremes were.
   */
  farthest(group: number, from: number): number {
    const [low, high] = [this.#minAt[group], this.#maxAt[group]];
    if (low < 0) return from === 0 ? this.#farAt[group] : -1;
    const [below, above] = [Math.abs(this.#min[group] - from), Math.abs(this.#max[group] - from)];
    return below > above || (below === above && low < high) ? low : high;
  }

  /** Adds a group of another set into one of this. */
  merge(into: number, other: Moments, from: number): void {
    const [na, nb] = [this.#count[into], other.#count[from]];
    if (nb === 0) return;
    if (na > 0) {
      const delta = other.mean(from) - this.mean(into);
      this.#squares[into] += other.#squares[from] + (delta * delta * na * nb) / (na + nb);
    } else this.#squares[into] = other.#squares[from];
    this.#count[into] = na + nb;
    const s = this.#high[into];
    const t = s + other.#high[from];
    const b = t - s;
    this.#low[into] += s - (t - b) + (other.#high[from] - b) + other.#low[from];
    this.#high[into] = t;
    if (other.#farAt[from] >= 0) {
      const [own, its] = [this.#reach[into], other.#reach[from]];
      if (its > own || (its === own && other.#farAt[from] < this.#farAt[into])) {
        this.#reach[into] = its;
        this.#farAt[into] = other.#farAt[from];
      }
      return;
    }
    const [low, high] = [other.#min[from], other.#max[from]];
    const [lowAt, highAt] = [other.#minAt[from], other.#maxAt[from]];
    if (low < this.#min[into] || (low === this.#min[into] && lowAt < this.#minAt[into])) {
      this.#min[into] = low;
      this.#minAt[into] = lowAt;
    }
    if (high > this.#max[into] || (high === this.#max[into] && highAt < this.#maxAt[into])) {
      this.#max[into] = high;
      this.#maxAt[into] = highAt;
    }
  }

  /**
   * Takes in the values of a selection, each into its record's group.
   * @param values NaN: missing
   * @param groupOf group of each record of the list, 0..size-1
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
    yield* inStretches(records.length, (from, to) =>
      this.#accumulate(values, groupOf, records, from, to, shift),
    );
    // An overflowing sum leaves no meaningful low part.
    for (let g = 0; g < this.size; g++) if (!Number.isFinite(this.#low[g])) this.#low[g] = 0;
    if (!squares) this.#squares.fill(0);
    else if (!this.#centre(shift)) yield* this.#deviations(values, groupOf, records);
  }

  /** Counts and compensated sums alone, for measures that need no more. */
  *addSums(values: Float64Array, groupOf: Int32Array, records: Int32Array): Steps<void> {
    yield* inStretches(records.length, (from, to) => this.#sum(values, groupOf, records, from, to));
    for (let g = 0; g < this.size; g++) if (!Number.isFinite(this.#low[g])) this.#low[g] = 0;
  }

  #sum(
    values: Float64Array,
    groupOf: Int32Array,
    records: Int32Array,
    from: number,
    to: number,
  ): void {
    const [count, high, low] = [this.#count, this.#high, this.#low];
    const [reach, farAt] = [this.#reach, this.#farAt];
    for (let k = from; k < to; k++) {
      const i = records[k];
      const x = values[i];
      if (x !== x) continue;
      const g = groupOf[i];
      count[g]++;
      const s = high[g];
      const t = s + x;
      const b = t - s;
      low[g] += s - (t - b) + (x - b);
      high[g] = t;
      const size = x < 0 ? -x : x;
      if (size > reach[g]) {
        reach[g] = size;
        farAt[g] = i;
      }
    }
  }

  /**
   * One pass. Knuth's two-sum gives the lost part of each addition without a branch. All is
   * written out: a call for each record would cost as much again.
   */
  #accumulate(
    values: Float64Array,
    groupOf: Int32Array,
    records: Int32Array,
    from: number,
    to: number,
    shift: number,
  ): void {
    const [count, high, low, min, max, squares] = [
      this.#count,
      this.#high,
      this.#low,
      this.#min,
      this.#max,
      this.#squares,
    ];
    const [minAt, maxAt] = [this.#minAt, this.#maxAt];
    for (let k = from; k < to; k++) {
      const i = records[k];
      const x = values[i];
      if (x !== x) continue;
      const g = groupOf[i];
      count[g]++;
      const s = high[g];
      const t = s + x;
      const b = t - s;
      low[g] += s - (t - b) + (x - b);
      high[g] = t;
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

  /**
   * From squares about the shift to squares about each mean: Σ(x−c)² − n(mean−c)².
   * @returns false where a group lies so far from the shift that digits would be lost
   */
  #centre(shift: number): boolean {
    for (let g = 0; g < this.size; g++) {
      const n = this.#count[g];
      if (n === 0) continue;
      const away = (this.#high[g] - n * shift + this.#low[g]) / n;
      const taken = n * away * away;
      const left = this.#squares[g] - taken;
      if (taken > 16 * left) return false;
      this.#squares[g] = left;
    }
    return true;
  }

  /** The corrected two-pass form: squares about the mean, less what the mean's rounding adds. */
  *#deviations(values: Float64Array, groupOf: Int32Array, records: Int32Array): Steps<void> {
    const squares = this.#squares.fill(0);
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
      if (this.#count[g]) squares[g] -= (drift[g] * drift[g]) / this.#count[g];
  }
}

/** The mean of up to 64 values, even over the selection; 0 without any. */
function roughMean(values: Float64Array, records: Int32Array): number {
  const stride = Math.max(1, Math.floor(records.length / 64));
  let [sum, n] = [0, 0];
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

/** Counts and sums of a column in each group; lowest, highest and deviations are not reckoned. */
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

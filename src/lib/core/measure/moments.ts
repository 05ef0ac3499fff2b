/**
 * Count, compensated sum, lowest, highest and the sum of squared deviations of one column in each
 * of many groups. Merges exactly as far as doubles go.
 *
 * Sums: Neumaier (1974), the lost low parts kept apart and added at the end. Squared deviations:
 * the corrected two-pass form, and merging, of Chan, Golub and LeVeque (1983).
 */
export class Moments {
  readonly count: Float64Array;
  /** High parts of the sums; the whole sum is `sum + low`. */
  readonly high: Float64Array;
  readonly low: Float64Array;
  readonly min: Float64Array;
  readonly max: Float64Array;
  /** Σ(x − mean)² */
  readonly squares: Float64Array;
  /** Records in each group, with or without a value. */
  readonly records: Float64Array;

  constructor(readonly size: number) {
    this.count = new Float64Array(size);
    this.high = new Float64Array(size);
    this.low = new Float64Array(size);
    this.min = new Float64Array(size).fill(Infinity);
    this.max = new Float64Array(size).fill(-Infinity);
    this.squares = new Float64Array(size);
    this.records = new Float64Array(size);
  }

  sum(group: number): number {
    return this.high[group] + this.low[group];
  }

  /** NaN without values. */
  mean(group: number): number {
    return this.count[group] ? this.sum(group) / this.count[group] : NaN;
  }

  /** Adds a group of another set into one of this. */
  merge(into: number, other: Moments, from: number): void {
    const nb = other.count[from];
    this.records[into] += other.records[from];
    if (nb === 0) return;
    const na = this.count[into];
    if (na > 0) {
      const delta = other.mean(from) - this.mean(into);
      this.squares[into] += other.squares[from] + (delta * delta * na * nb) / (na + nb);
    } else this.squares[into] = other.squares[from];
    this.count[into] = na + nb;
    this.#addToSum(into, other.high[from]);
    this.low[into] += other.low[from];
    if (other.min[from] < this.min[into]) this.min[into] = other.min[from];
    if (other.max[from] > this.max[into]) this.max[into] = other.max[from];
  }

  #addToSum(group: number, x: number): void {
    const s = this.high[group];
    const t = s + x;
    const b = t - s;
    this.low[group] += s - (t - b) + (x - b);
    this.high[group] = t;
  }
}

/**
 * Moments of a column in each group, over a selection.
 * @param values NaN: missing
 * @param groupOf group of each record of the list, 0..size-1
 * @param records the selection, as record numbers
 * @param squares whether the squared deviations are wanted; without them one pass does
 */
export function reckonMoments(
  values: Float64Array,
  groupOf: Int32Array,
  size: number,
  records: Int32Array,
  squares: boolean,
): Moments {
  const m = new Moments(size);
  accumulate(values, groupOf, records, m);
  // An overflowing sum leaves no meaningful low part.
  for (let g = 0; g < size; g++) if (!Number.isFinite(m.low[g])) m.low[g] = 0;
  if (squares) addSquares(values, groupOf, records, m);
  return m;
}

/** First pass. Knuth's two-sum gives the lost part of each addition without a branch. */
function accumulate(values: Float64Array, groupOf: Int32Array, records: Int32Array, m: Moments): void {
  const { count, high, low, min, max, records: met } = m;
  for (let k = 0; k < records.length; k++) {
    const i = records[k];
    const g = groupOf[i];
    const x = values[i];
    met[g]++;
    if (x !== x) continue;
    count[g]++;
    const s = high[g];
    const t = s + x;
    const b = t - s;
    low[g] += s - (t - b) + (x - b);
    high[g] = t;
    if (x < min[g]) min[g] = x;
    if (x > max[g]) max[g] = x;
  }
}

/** Second pass, with the correction for the rounding of the mean. */
function addSquares(values: Float64Array, groupOf: Int32Array, records: Int32Array, m: Moments): void {
  const { squares, count } = m;
  const means = Float64Array.from({ length: m.size }, (_, g) => m.mean(g));
  const drift = new Float64Array(m.size);
  for (let k = 0; k < records.length; k++) {
    const i = records[k];
    const x = values[i];
    if (x !== x) continue;
    const g = groupOf[i];
    const d = x - means[g];
    squares[g] += d * d;
    drift[g] += d;
  }
  for (let g = 0; g < m.size; g++) if (count[g]) squares[g] -= (drift[g] * drift[g]) / count[g];
}

/** Groups of one level gathered into the level above. */
export function rollUp(m: Moments, parent: Int32Array, size: number): Moments {
  const out = new Moments(size);
  for (let g = 0; g < m.size; g++) out.merge(parent[g], m, g);
  return out;
}

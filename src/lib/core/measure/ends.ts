import type { Grouping } from './grouping';
import type { Leafed } from './leafed';

/**
 * The records at both ends of a column in each group: those that hold its lowest and its highest
 * value, the first one on a tie. Leaving out any other record changes a sum or a mean by less.
 */
export interface Ends {
  /** Values that are there. */
  readonly count: Float64Array;
  /** Places of the records; -1 without values. */
  readonly low: Int32Array;
  readonly high: Int32Array;
  /** Σ(x − shift) and Σ(x − shift)². */
  readonly off: Float64Array;
  readonly squares: Float64Array;
}

const emptyEnds = (size: number): Ends => ({
  count: new Float64Array(size),
  low: new Int32Array(size).fill(-1),
  high: new Int32Array(size).fill(-1),
  off: new Float64Array(size),
  squares: new Float64Array(size),
});

/** Both ends of a column by leaf, in one pass. @param values NaN: missing */
export function endsByLeaf(
  values: Float64Array,
  { records, leafOf, leaves }: Pick<Leafed, 'records' | 'leafOf' | 'leaves'>,
): Ends {
  const ends = emptyEnds(leaves);
  const { count, low, high, off, squares } = ends;
  // Any value will do: deviations about it lose fewer digits than squares of the values.
  let shift = NaN;
  for (let k = 0; k < records.length; k++) {
    const i = records[k];
    const v = values[i];
    if (v !== v) continue;
    if (shift !== shift) shift = v;
    const leaf = leafOf[i];
    const d = v - shift;
    off[leaf] += d;
    squares[leaf] += d * d;
    if (count[leaf]++ === 0) low[leaf] = high[leaf] = i;
    else if (v < values[low[leaf]]) low[leaf] = i;
    else if (v > values[high[leaf]]) high[leaf] = i;
  }
  return ends;
}

/** The same by the groups of a grouping. */
export function gatherEnds(leaves: Ends, values: Float64Array, { size, of }: Grouping): Ends {
  const out = emptyEnds(size);
  for (let leaf = 0; leaf < of.length; leaf++) {
    const g = of[leaf];
    if (g < 0 || leaves.count[leaf] === 0) continue;
    const [low, high] = [leaves.low[leaf], leaves.high[leaf]];
    if (out.count[g] === 0 || isBefore(values[low], low, values[out.low[g]], out.low[g]))
      out.low[g] = low;
    if (out.count[g] === 0 || isBefore(-values[high], high, -values[out.high[g]], out.high[g]))
      out.high[g] = high;
    out.count[g] += leaves.count[leaf];
    out.off[g] += leaves.off[leaf];
    out.squares[g] += leaves.squares[leaf];
  }
  return out;
}

const isBefore = (a: number, i: number, b: number, j: number): boolean =>
  a < b || (a === b && i < j);

/** The sample deviation of a group, good enough to compare with; NaN under two values. */
export function deviationOf({ count, off, squares }: Ends, group: number): number {
  const n = count[group];
  return n < 2 ? NaN : Math.sqrt(Math.max(0, squares[group] - off[group] ** 2 / n) / (n - 1));
}

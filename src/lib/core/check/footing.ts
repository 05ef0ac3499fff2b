import { groupPath, type GroupTree } from '../arrange/tree';
import { MEASURES, type Measure } from '../measure/measure';
import type { GroupFigures } from '../tally/groupFigures';

/** Whether the subtotals of every level add up to what stands above them. */
export interface FootingCheck {
  readonly foots: boolean;
  /** Groups compared, by level. */
  readonly groups: readonly number[];
  /** Measures that do not add, by their place: means, distinct counts. */
  readonly notAdding: readonly number[];
  readonly failure: {
    readonly measure: number;
    readonly path: readonly string[];
    readonly difference: number;
  } | null;
}

/** Reckoned apart from any group, straight over the selection. */
export interface DirectTotal {
  readonly total: number;
  readonly values: number;
  /** Σ|x|: the bound is values · 2⁻⁵² of it. */
  readonly magnitude: number;
}

/** Sum and magnitude of a selection without groups: the other side of the footing. */
export function directTotal(values: Float64Array, records: Int32Array): DirectTotal {
  let [sum, lost, magnitude, n] = [0, 0, 0, 0];
  for (let k = 0; k < records.length; k++) {
    const x = values[records[k]];
    if (x !== x) continue;
    const t = sum + x;
    const b = t - sum;
    lost += sum - (t - b) + (x - b);
    sum = t;
    magnitude += x < 0 ? -x : x;
    n++;
  }
  return { total: sum + lost, values: n, magnitude };
}

/**
 * Adds the subtotals of every level and compares them with the figure above, and the first level
 * with a total reckoned without groups.
 * @param direct totals by place of the measure, for those that add
 */
export function checkFooting(
  tree: GroupTree,
  measures: readonly Measure[],
  figures: GroupFigures,
  direct: ReadonlyMap<number, DirectTotal>,
): FootingCheck {
  const notAdding = measures.flatMap((m, k) => (MEASURES[m.kind].adds ? [] : [k]));
  const groups = tree.levels.map((_, l) => countGroups(figures, l));
  for (const [k, { total, values, magnitude }] of direct) {
    const bound = values * 2 ** -52 * magnitude;
    for (let l = 0; l < tree.levels.length; l++) {
      const failure = levelFailure(tree, figures, k, l, total, bound);
      if (failure) return { foots: false, groups, notAdding, failure };
    }
  }
  return { foots: true, groups, notAdding, failure: null };
}

/** Groups of a level that have records in the selection. */
const countGroups = (figures: GroupFigures, level: number): number =>
  figures.records[level].reduce((n, records) => n + (records > 0 ? 1 : 0), 0);

function levelFailure(
  tree: GroupTree,
  figures: GroupFigures,
  measure: number,
  l: number,
  total: number,
  bound: number,
): FootingCheck['failure'] {
  const level = tree.levels[l];
  const values = figures.levels[l][measure];
  const sums = new Float64Array(l === 0 ? 1 : tree.levels[l - 1].size);
  for (let g = 0; g < level.size; g++)
    if (values[g] === values[g]) sums[level.parent[g]] += values[g];
  for (let p = 0; p < sums.length; p++) {
    const above = l === 0 ? total : figures.levels[l - 1][measure][p];
    const difference = sums[p] - (above === above ? above : 0);
    if (Math.abs(difference) > bound)
      return { measure, path: l === 0 ? [] : groupPath(tree, l - 1, p), difference };
  }
  return null;
}

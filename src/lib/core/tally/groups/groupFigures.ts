import type { GroupTree } from '../../arrange/tree';
import type { Grouping } from '../../measure/grouping';
import type { Measure } from '../../measure/measure';
import { countLeaves } from '../../measure/compute';
import type { Leafed } from '../../measure/leafed';
import { lookedUp } from '../../task/arrays';
import { inStretches, type Task } from '../../task/task';
import { orderReadInSteps } from '../../table/recordOrder';
import type { Table } from '../../table/table';
import { computeInfluences, type Influences } from '../trust/influence';
import type { OrderFigures } from './sortedGroups';

/** Measures over the groups of every level, and over the whole selection. */
export interface GroupFigures {
  /** `levels[level][measure][group]`; NaN: none. Text measures hold a dictionary code. */
  readonly levels: readonly (readonly Float64Array[])[];
  readonly total: Float64Array;
  /** Records of the selection in each group: `records[level][group]`. */
  readonly records: readonly Float64Array[];
  /** What the figures rest on; grouping 0 is the whole, 1 the first level. */
  readonly influences: Influences;
}

/** What the groups of each level are put in order by. */
export const orderFigures = ({ records, levels }: GroupFigures): OrderFigures[] =>
  records.map((of, l) => ({ records: of, measures: levels[l] }));

/** What computing needs besides the measures. */
export interface Grouped {
  readonly table: Table;
  readonly tree: GroupTree;
  /** The selection, as rising record numbers. */
  readonly records: Int32Array;
  /** The same in the order of the ledger; `first` and `last` look at it. */
  readonly ordered: Int32Array;
}

/** Computes every measure from the records; a parent's figure never comes from its subtotals' figures. */
export function* computeGroups(grouped: Grouped, measures: readonly Measure[]): Task<GroupFigures> {
  const { tree } = grouped;
  const input: Leafed = { ...grouped, leafOf: tree.leafOf, leaves: tree.leaves };
  const groupings = yield* levelGroupings(tree);
  const { figures, influences } = yield* computeInfluences(input, groupings, measures);
  return {
    levels: figures.slice(1),
    total: Float64Array.from(figures[0], (values) => values[0]),
    records: yield* countLevels(tree, yield* countLeaves(input)),
    influences,
  };
}

/** The root and each level as groupings of the leaves, each with the one above as its parent. */
export function* levelGroupings(tree: GroupTree): Task<Grouping[]> {
  const depth = tree.levels.length;
  const out: Grouping[] = new Array(depth + 1);
  let of = yield* orderReadInSteps(tree.leaves);
  for (let l = depth - 1; l >= 0; l--) {
    const { size, parent } = tree.levels[l];
    out[l + 1] = { size, of, parent: { place: l, of: parent } };
    of = l > 0 ? yield* lookedUp(parent, of) : new Int32Array(tree.leaves);
  }
  out[0] = { size: 1, of };
  return out;
}

/** Records of each group, by level. */
function* countLevels(tree: GroupTree, leaves: Float64Array): Task<Float64Array[]> {
  const out: Float64Array[] = new Array(tree.levels.length);
  let counts = leaves;
  for (let l = tree.levels.length - 1; l >= 0; l--) {
    out[l] = counts;
    if (l === 0) break;
    const above = new Float64Array(tree.levels[l - 1].size);
    const { parent } = tree.levels[l];
    const below = counts;
    yield* inStretches(below.length, (from, to) => {
      for (let g = from; g < to; g++) above[parent[g]] += below[g];
    });
    counts = above;
  }
  return out;
}

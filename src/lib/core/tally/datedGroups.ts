import type { GroupKey } from '../arrange/groupKey';
import type { GroupTree } from '../arrange/tree';
import type { Grouping } from '../measure/grouping';
import type { Leafed } from '../measure/leafed';
import type { Measure } from '../measure/measure';
import type { Steps } from '../steps/steps';
import type { Bitset } from '../table/bitset';
import { orderedFor, recordsOf, type Base } from './base';
import type { DatedLeaves } from './datedLeaves';
import { levelGroupings } from './groupFigures';
import { refuseTooMany, treeOf } from './keys';
import type { Warning } from './warnings';

/** Cells of groups and stretches of days; more are refused. */
const MOST_CELLS = 4_000_000;

/** The whole alone; its leaves are those of the days. */
const ROOT: GroupTree = { keys: [], levels: [], leafOf: new Int32Array(0), leaves: 1 };

/** Series of groups over one calendar: the leaves are the cells of each group and stretch of days. */
export interface DatedGroups {
  readonly leaves: DatedLeaves;
  readonly tree: GroupTree;
  /** Groups at each level as groupings of the tree's leaves, the whole first. */
  readonly levels: readonly Grouping[];
  readonly input: Leafed;
  readonly warnings: readonly Warning[];
}

/**
 * The groups of some keys crossed with stretches of days; without keys the whole alone.
 * @throws TallyRefused for too many groups or cells
 */
export function* datedGroups(
  base: Base,
  selection: Bitset,
  keys: readonly GroupKey[],
  leaves: DatedLeaves,
  measures: readonly Measure[],
): Steps<DatedGroups> {
  const { table } = base;
  const { tree, warnings } = keys.length
    ? yield* treeOf(base, keys, selection)
    : { tree: ROOT, warnings: [] };
  yield undefined;
  const width = leaves.length + 1;
  refuseTooMany(tree.leaves * width, 'figures', MOST_CELLS);
  const records = recordsOf(selection);
  let { leafOf }: { leafOf: Int32Array } = leaves;
  let counts: Float64Array | undefined = leaves.counts;
  if (keys.length) {
    leafOf = new Int32Array(table.length);
    const [groups, days] = [tree.leafOf, leaves.leafOf];
    if (records.length === table.length) {
      counts = new Float64Array(tree.leaves * width);
      for (let i = 0; i < leafOf.length; i++) counts[(leafOf[i] = groups[i] * width + days[i])]++;
    } else {
      counts = undefined;
      for (let i = 0; i < leafOf.length; i++) leafOf[i] = groups[i] * width + days[i];
    }
    yield undefined;
  }
  return {
    leaves,
    tree,
    levels: levelGroupings(tree),
    input: {
      table,
      records,
      ordered: orderedFor(base, selection, measures),
      leafOf,
      leaves: tree.leaves * width,
      ...(counts && { counts }),
    },
    warnings,
  };
}

/**
 * The cells of a level of groups and a grouping of days: those of group g and day group p stand at
 * place g · days.size + p.
 */
export function crossed({ leaves, tree }: DatedGroups, groups: Grouping, days: Grouping): Grouping {
  const width = leaves.length + 1;
  if (tree.levels.length === 0) return days;
  const of = new Int32Array(tree.leaves * width).fill(-1);
  for (let leaf = 0; leaf < tree.leaves; leaf++) {
    const g = groups.of[leaf];
    if (g < 0) continue;
    for (let d = 0; d < width; d++)
      if (days.of[d] >= 0) of[leaf * width + d] = g * days.size + days.of[d];
  }
  return { size: groups.size * days.size, of };
}

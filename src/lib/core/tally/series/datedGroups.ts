import type { GroupKey } from '../../arrange/groupKey';
import type { GroupTree } from '../../arrange/tree';
import type { Grouping } from '../../measure/grouping';
import type { Leafed } from '../../measure/leafed';
import type { Measure } from '../../measure/measure';
import { filled } from '../../task/arrays';
import { inStretches, STRIDE, type Task } from '../../task/task';
import type { Bitset } from '../../table/bitset';
import { orderedFor, recordsOf, type TallyInput } from '../input/input';
import type { DatedLeaves } from './datedLeaves';
import { levelGroupings } from '../groups/groupFigures';
import { refuseTooMany, treeOf } from '../groups/keys';
import type { Warning } from '../trust/warnings';

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
  readonly leafed: Leafed;
  readonly warnings: readonly Warning[];
}

/**
 * The groups of some keys crossed with stretches of days; without keys the whole alone.
 * @throws TallyRefused for too many groups or cells
 */
export function* datedGroups(
  input: TallyInput,
  selection: Bitset,
  keys: readonly GroupKey[],
  leaves: DatedLeaves,
  measures: readonly Measure[],
): Task<DatedGroups> {
  const { table } = input;
  const { tree, warnings } = keys.length
    ? yield* treeOf(input, keys, selection)
    : { tree: ROOT, warnings: [] };
  yield undefined;
  const width = leaves.length + 1;
  refuseTooMany(tree.leaves * width, 'figures', MOST_CELLS);
  const records = recordsOf(selection);
  const { leafOf, counts } = keys.length
    ? yield* cellsOf(tree, leaves, !table.weights && records.length === table.length)
    : leaves;
  return {
    leaves,
    tree,
    levels: yield* levelGroupings(tree),
    leafed: {
      table,
      records,
      ordered: yield* orderedFor(input, selection, measures),
      leafOf,
      leaves: tree.leaves * width,
      ...(counts && { counts }),
    },
    warnings,
  };
}

function cells(
  out: Int32Array,
  groups: Int32Array,
  days: Int32Array,
  width: number,
  from: number,
  to: number,
): void {
  for (let i = from; i < to; i++) out[i] = groups[i] * width + days[i];
}

function countCells(counts: Float64Array, cellOf: Int32Array, from: number, to: number): void {
  for (let i = from; i < to; i++) counts[cellOf[i]]++;
}

/** The cell of each record, and how many records each has where all of the list count. */
function* cellsOf(
  tree: GroupTree,
  leaves: DatedLeaves,
  all: boolean,
): Task<Pick<Leafed, 'leafOf' | 'counts'>> {
  const width = leaves.length + 1;
  const [groups, days] = [tree.leafOf, leaves.leafOf];
  const leafOf = new Int32Array(groups.length);
  const counts = new Float64Array(all ? tree.leaves * width : 0);
  yield* inStretches(leafOf.length, (from, to) => {
    cells(leafOf, groups, days, width, from, to);
    if (all) countCells(counts, leafOf, from, to);
  });
  return { leafOf, ...(all && { counts }) };
}

/**
 * The cells of a level of groups and a grouping of days: those of group g and day group p stand at
 * place g · days.size + p.
 */
export function* crossed(
  { leaves, tree }: DatedGroups,
  groups: Grouping,
  days: Grouping,
): Task<Grouping> {
  const width = leaves.length + 1;
  if (tree.levels.length === 0) return days;
  const of = yield* filled(new Int32Array(tree.leaves * width), -1);
  yield* inStretches(
    tree.leaves,
    (from, to) => {
      for (let leaf = from; leaf < to; leaf++) {
        const g = groups.of[leaf];
        if (g < 0) continue;
        for (let d = 0; d < width; d++)
          if (days.of[d] >= 0) of[leaf * width + d] = g * days.size + days.of[d];
      }
    },
    Math.ceil(STRIDE / width),
  );
  return { size: groups.size * days.size, of };
}

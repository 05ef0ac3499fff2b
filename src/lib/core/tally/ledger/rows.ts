import type { GroupOrder } from '../../arrange/groupKey';
import { layoutLeaves, type GroupTree } from '../../arrange/tree';
import { inStretches, type Steps } from '../../steps/steps';
import { has, type Bitset } from '../../table/bitset';
import { groupComparator } from '../sortedGroups';
import type { GroupFigures } from '../groupFigures';

/** Records of the ledger, each leaf's side by side in the order of records. */
export interface Rows {
  readonly records: Int32Array;
  /** First row of each group by level, and the one behind its last. */
  readonly first: readonly Int32Array[];
  readonly end: readonly Int32Array[];
}

/**
 * Lays the records of a selection out by leaf.
 * @param order all records in the order of records
 * @param chosen the selection as record numbers
 */
export function* layoutRows(
  tree: GroupTree,
  order: Int32Array,
  selection: Bitset,
  chosen: Int32Array,
): Steps<Rows> {
  const { place, first, end } = layoutLeaves(tree);
  const start = new Int32Array(tree.leaves + 1);
  const { leafOf } = tree;
  yield* inStretches(chosen.length, (from, to) => {
    for (let k = from; k < to; k++) start[place[leafOf[chosen[k]]] + 1]++;
  });
  for (let g = 0; g < tree.leaves; g++) start[g + 1] += start[g];
  const records = new Int32Array(start[tree.leaves]);
  const at = start.slice();
  yield* inStretches(order.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const i = order[k];
      if (has(selection, i)) records[at[place[leafOf[i]]]++] = i;
    }
  });
  return {
    records,
    first: first.map((level) => level.map((p) => start[p])),
    end: end.map((level) => level.map((p) => start[p])),
  };
}

/** The groups of each level in the order shown, parent by parent. */
export interface ShownGroups {
  /** Groups in order, those of one parent side by side. */
  readonly order: readonly Int32Array[];
  /** Where each parent's children begin in `order`; one more entry than parents. */
  readonly start: readonly Int32Array[];
}

/** Orders the groups of every level that have records in the ledger; empty ones are left out. */
export function orderGroups(
  tree: GroupTree,
  orders: readonly GroupOrder[],
  rows: Rows,
  figures: GroupFigures,
): ShownGroups {
  const order: Int32Array[] = [];
  const start: Int32Array[] = [];
  tree.levels.forEach((level, l) => {
    const shown: number[] = [];
    for (let g = 0; g < level.size; g++) if (rows.end[l][g] > rows.first[l][g]) shown.push(g);
    const compare = groupComparator(tree, l, orders[l], {
      records: figures.records[l],
      measures: figures.levels[l],
    });
    shown.sort((a, b) => level.parent[a] - level.parent[b] || compare(a, b));
    const parents = l === 0 ? 1 : tree.levels[l - 1].size;
    const begins = new Int32Array(parents + 1);
    for (const g of shown) begins[level.parent[g] + 1]++;
    for (let p = 0; p < parents; p++) begins[p + 1] += begins[p];
    order.push(Int32Array.from(shown));
    start.push(begins);
  });
  return { order, start };
}

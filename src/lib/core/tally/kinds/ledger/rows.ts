import { layoutLeaves, type GroupTree } from '../../../arrange/tree';
import { addedUp, lookedUp } from '../../../task/arrays';
import { inStretches, type Task } from '../../../task/task';
import { has, type Bitset } from '../../../table/bitset';

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
): Task<Rows> {
  const { place, first, end } = yield* layoutLeaves(tree);
  const start = new Int32Array(tree.leaves + 1);
  const { leafOf } = tree;
  yield* inStretches(chosen.length, (from, to) => {
    for (let k = from; k < to; k++) start[place[leafOf[chosen[k]]] + 1]++;
  });
  yield* addedUp(start);
  const records = new Int32Array(start[tree.leaves]);
  const at = start.slice();
  yield* inStretches(order.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const i = order[k];
      if (has(selection, i)) records[at[place[leafOf[i]]]++] = i;
    }
  });
  const rows = function* (places: readonly Int32Array[]): Task<Int32Array[]> {
    const of: Int32Array[] = [];
    for (const level of places) of.push(yield* lookedUp(start, level));
    return of;
  };
  return { records, first: yield* rows(first), end: yield* rows(end) };
}

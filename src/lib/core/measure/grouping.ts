import { inStretches, type Task } from '../task/task';
import { orderRead } from '../table/recordOrder';

/**
 * Groups of records are computed from leaves: each record belongs to one leaf, and a grouping says
 * which group each leaf belongs to. Levels of a ledger, margins of a cross-tab and grand totals are
 * groupings of the same leaves, so that one pass over the records serves them all.
 */
export interface Grouping {
  readonly size: number;
  /** Group of each leaf; -1: in none. */
  readonly of: Int32Array;
  /** The grouping above, by place among those computed together, and this one's groups in it. */
  readonly parent?: { readonly place: number; readonly of: Int32Array };
}

/** Each leaf a group of its own. */
export const leafGrouping = (leaves: number): Grouping => ({
  size: leaves,
  of: orderRead(leaves),
});

/** All leaves in one group. */
export const totalGrouping = (leaves: number): Grouping => ({
  size: 1,
  of: new Int32Array(leaves),
});

/** What leaves hold, added up by group. */
export function* addUp(perLeaf: ArrayLike<number>, { size, of }: Grouping): Task<Float64Array> {
  const out = new Float64Array(size);
  yield* inStretches(of.length, (from, to) => {
    for (let leaf = from; leaf < to; leaf++) if (of[leaf] >= 0) out[of[leaf]] += perLeaf[leaf];
  });
  return out;
}

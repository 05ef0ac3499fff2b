import type { GroupTree } from '../../arrange/tree';
import type { Condition } from '../../selection/condition';
import { inStretches, type Task } from '../../task/task';
import { add, emptyBitset, type Bitset } from '../../table/bitset';
import { anyOf } from '../spec/whereCondition';

/** What a figure stands on that reaches the rows before its own. */
export interface CarriedFrom {
  /** How many rows, its own among them. */
  readonly rows: number;
  readonly records: Bitset;
  /** What the records meet; null where that would be too much to say. */
  readonly where: Condition | null;
}

/** What more rows than this meet is not said. */
export const MOST_TOLD = 1000;

/** The records of some leaves, found at one pass. */
export function* recordsOfLeaves(
  { leafOf, leaves }: Pick<GroupTree, 'leafOf' | 'leaves'>,
  chosen: ArrayLike<number>,
): Task<Bitset> {
  const isChosen = new Uint8Array(leaves);
  yield* inStretches(chosen.length, (from, to) => {
    for (let k = from; k < to; k++) isChosen[chosen[k]] = 1;
  });
  const records = emptyBitset(leafOf.length);
  yield* inStretches(leafOf.length, (from, to) => {
    for (let i = from; i < to; i++) if (isChosen[leafOf[i]] === 1) add(records, i);
  });
  return records;
}

/** What stands under some groups, one or more of them. @param whereOf what the records of a group meet */
export const whereOfGroups = (
  groups: readonly number[],
  whereOf: (group: number) => Condition,
): Condition | null => (groups.length > MOST_TOLD ? null : anyOf(groups.map(whereOf)));

/** What the first of some groups in order stand on, each a leaf. */
export function* carriedFromLeaves(
  tree: Pick<GroupTree, 'leafOf' | 'leaves'>,
  leaves: readonly number[],
  whereOf: (leaf: number) => Condition,
): Task<CarriedFrom> {
  return {
    rows: leaves.length,
    records: yield* recordsOfLeaves(tree, leaves),
    where: whereOfGroups(leaves, whereOf),
  };
}

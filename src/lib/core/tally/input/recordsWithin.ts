import type { Condition } from '../../selection/condition';
import { evaluate } from '../../selection/evaluate';
import type { Task } from '../../task/task';
import { and, type Bitset } from '../../table/bitset';
import type { TallyInput } from './input';

/**
 * Records of a selection that meet all of these. Each is asked of the whole selection, so that
 * conditions that look at all of it stay the same.
 * @example finish(recordsWithin(base, base.counted, [where]))
 */
export function* recordsWithin(
  input: Pick<TallyInput, 'table'>,
  selection: Bitset,
  wheres: readonly (Condition | undefined)[],
): Task<Bitset> {
  let out = selection;
  for (const where of wheres)
    if (where) {
      out = and(out, (yield* evaluate(input.table, where, selection)).yes);
      yield undefined;
    }
  return out;
}

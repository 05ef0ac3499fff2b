import type { Condition } from '../scope/condition';
import { evaluate } from '../scope/evaluate';
import type { Steps } from '../steps/steps';
import { and, type Bitset } from '../table/bitset';
import type { Base } from './base';

/**
 * Records of a selection that meet all of these. Each is asked of the whole selection, so that
 * conditions that look at all of it stay the same.
 * @example finish(recordsWithin(base, base.counted, [where]))
 */
export function* recordsWithin(
  base: Pick<Base, 'table'>,
  selection: Bitset,
  wheres: readonly (Condition | undefined)[],
): Steps<Bitset> {
  let out = selection;
  for (const where of wheres)
    if (where) {
      out = and(out, (yield* evaluate(base.table, where, selection)).yes);
      yield undefined;
    }
  return out;
}

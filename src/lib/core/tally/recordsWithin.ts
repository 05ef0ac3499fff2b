import { evaluate } from '../scope/evaluate';
import { and, bitsetOf, emptyBitset, or, without, type Bitset } from '../table/bitset';
import type { Base } from './base';
import type { Where } from './result';

/** Records of a selection that meet all of these. */
export function recordsWithin(
  base: Pick<Base, 'table'>,
  selection: Bitset,
  wheres: readonly (Where | undefined)[],
): Bitset {
  let out = selection;
  for (const where of wheres) if (where) out = within(base, out, selection, where);
  return out;
}

/** Conditions are asked of the whole selection, so that those that look at all of it stay the same. */
function within(
  base: Pick<Base, 'table'>,
  among: Bitset,
  selection: Bitset,
  { condition, records, any, except }: Where,
): Bitset {
  const { length } = base.table;
  let out = among;
  if (condition) out = and(out, evaluate(base.table, condition, selection).yes);
  if (records)
    out = and(
      out,
      bitsetOf(
        length,
        records.filter((i) => i < length),
      ),
    );
  if (any) {
    let either = emptyBitset(length);
    for (const where of any) either = or(either, within(base, out, selection, where));
    out = either;
  }
  for (const where of except ?? []) out = without(out, within(base, out, selection, where));
  return out;
}

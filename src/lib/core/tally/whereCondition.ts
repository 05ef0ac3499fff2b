import type { Condition } from '../scope/condition';
import type { Where } from './result';

/**
 * What a figure stands on as one condition; null where it is a list of records that no condition
 * says, or everything.
 */
export function conditionOf(wheres: readonly (Where | undefined)[]): Condition | null {
  const parts: Condition[] = [];
  for (const where of wheres) {
    if (!where) continue;
    const part = partsOf(where);
    if (part === null) return null;
    parts.push(...part);
  }
  return joined('all', parts);
}

const joined = (kind: 'all' | 'any', parts: readonly Condition[]): Condition | null =>
  parts.length > 1 ? { kind, not: false, parts: [...parts] } : (parts[0] ?? null);

/** Conditions that all must hold; null where one of them cannot be said. */
function partsOf({ condition, records, any, except }: Where): Condition[] | null {
  if (records) return null;
  const out: Condition[] = condition ? [condition] : [];
  for (const [some, not] of [
    [any, false],
    [except, true],
  ] as const) {
    if (!some) continue;
    const members = some.map((where) => conditionOf([where]));
    const said = members.filter((member) => member !== null);
    if (said.length < members.length) return null;
    const one = joined('any', said);
    if (one) out.push(not ? { ...one, not: !one.not } : one);
  }
  return out;
}

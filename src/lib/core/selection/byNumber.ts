import type { Condition } from './condition';

/** The numbers of all records that a condition names. */
export function numbersIn(condition: Condition): number[] {
  if (condition.kind === 'records') return condition.records;
  return 'parts' in condition ? condition.parts.flatMap(numbersIn) : [];
}

/** A condition with the records it names under other numbers. */
export function renumbered(
  condition: Condition,
  follow: (numbers: readonly number[]) => number[],
): Condition {
  if (condition.kind === 'records') return { ...condition, records: follow(condition.records) };
  return 'parts' in condition
    ? { ...condition, parts: condition.parts.map((part) => renumbered(part, follow)) }
    : condition;
}

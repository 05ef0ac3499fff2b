import type { Condition, Leaf, Rung, Test } from '../selection/condition';

/** A test for one of several: values, periods, or months and weekdays of any year. */
type OneOf = Extract<Test, { test: 'is' | 'period' | 'season' }>;

const oneOf = (condition: Condition): (Leaf & { readonly test: OneOf }) | null =>
  condition.kind === 'leaf' && !condition.not && isOneOf(condition.test)
    ? { ...condition, test: condition.test }
    : null;

const isOneOf = (test: Test): test is OneOf => ['is', 'period', 'season'].includes(test.test);

/** What one of is asked for; null where the two ask for things that can meet: a month and a weekday. */
function asked(test: OneOf, other: OneOf): readonly string[] | null {
  if (test.test === 'is')
    return other.test === 'is' ? test.values.map((v) => v.trim().toLowerCase()) : null;
  if (test.test === 'period')
    return other.test === 'period' && other.period === test.period ? test.days : null;
  return other.test === 'season' && other.of === test.of ? test.values.map(String) : null;
}

/**
 * The step that a new one takes the place of: both narrow one column to one of several, and share none, so that
 * together they keep no record. Null where there is none, or it is off.
 * @example clashOf(doc.ladder.rungs, { kind: 'leaf', column: 'route', not: false, test: { test: 'is', values: ['Holm'], exact: true } })
 */
export function clashOf(rungs: readonly Rung[], condition: Condition): Rung | null {
  const own = oneOf(condition);
  if (!own) return null;
  const clashes = ({ on, condition: given }: Rung): boolean => {
    const other = oneOf(given);
    if (!on || other?.column !== own.column) return false;
    const [here, there] = [asked(own.test, other.test), asked(other.test, own.test)];
    return here !== null && there !== null && !here.some((value) => there.includes(value));
  };
  return rungs.findLast(clashes) ?? null;
}

/** The two of a clash as one step: any of both. */
export const bothOf = (rung: Rung, condition: Condition): Condition => {
  const [before, own] = [oneOf(rung.condition), oneOf(condition)];
  if (before?.test.test === 'is' && own?.test.test === 'is') {
    const { exact } = before.test;
    const values = [...before.test.values, ...own.test.values];
    return { ...own, test: { test: 'is', values, exact: exact && own.test.exact } };
  }
  return { kind: 'any', not: false, parts: [rung.condition, condition] };
};

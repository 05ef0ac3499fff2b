import { BadCondition } from '../errors';
import { columnFor } from '../expression/columnFor';
import { fullScalar } from '../table/cell';
import { isText } from '../table/column';
import type { Table } from '../table/table';
import type { Condition, Ladder, Test } from './condition';

/**
 * The ladder with every "one of another list's values" written out as those values.
 * @throws BadCondition where the list is not at hand, UnknownColumn where it lacks the column
 */
export const withListed = (ladder: Ladder, others: ReadonlyMap<string, Table>): Ladder => ({
  ...ladder,
  rungs: ladder.rungs.map((rung) => ({
    ...rung,
    condition: conditionWithListed(rung.condition, others),
  })),
});

export function conditionWithListed(
  condition: Condition,
  others: ReadonlyMap<string, Table>,
): Condition {
  if (condition.kind === 'expression' || condition.kind === 'records') return condition;
  if (condition.kind === 'leaf')
    return condition.test.test === 'listed'
      ? { ...condition, test: valuesTest(condition.test, others) }
      : condition;
  return { ...condition, parts: condition.parts.map((part) => conditionWithListed(part, others)) };
}

function valuesTest(
  { list, column: ref, exact }: Extract<Test, { test: 'listed' }>,
  others: ReadonlyMap<string, Table>,
): Test {
  const other = others.get(list);
  if (!other) throw new BadCondition(`The list “${list}” is not at hand.`);
  const column = columnFor(other, ref);
  const values = isText(column)
    ? [...column.dictionary]
    : [...new Set(column.values)].filter((v) => v === v).map((v) => fullScalar(column, v));
  return { test: 'is', values, exact };
}

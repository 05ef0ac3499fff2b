import type { Comparison, Condition } from '../../../selection/condition';
import type { Task } from '../../../task/task';
import { bitsetInSteps } from '../../../table/bitset';
import type { ScalarColumn } from '../../../table/column';
import { recordNumber } from '../../../table/recordNumber';
import { MOST_TOLD, type CarriedFrom } from '../../groups/carriedFrom';
import { anyOf } from '../../spec/whereCondition';
import type { RankingSpec } from './spec';

/** The records from the first place down to one: those beyond its value, and equal ones no later. */
export function* downTo(
  { by, from }: RankingSpec,
  column: ScalarColumn,
  order: Int32Array,
  place: number,
): Task<CarriedFrom> {
  const { values } = column;
  const value = values[order[place]];
  let first = place;
  while (first > 0 && values[order[first - 1]] === value) first--;
  const isLast = place + 1 === order.length || values[order[place + 1]] !== value;
  const compared = (op: Comparison): Condition => ({
    kind: 'leaf',
    column: by.column ?? column.id,
    not: false,
    test: { test: 'compare', op, value },
  });
  const tied = (): Condition => ({
    kind: 'records',
    not: false,
    records: Array.from(order.subarray(first, place + 1), recordNumber),
  });
  const highest = from === 'highest';
  return {
    rows: place + 1,
    records: yield* bitsetInSteps(values.length, order.subarray(0, place + 1)),
    where: isLast
      ? compared(highest ? 'ge' : 'le')
      : place - first >= MOST_TOLD
        ? null
        : first === 0
          ? tied()
          : anyOf([compared(highest ? 'gt' : 'lt'), tied()]),
  };
}

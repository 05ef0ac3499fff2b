import type { Task } from '../../../task/task';
import type { RowPlan } from '../../answer/answer';
import {
  periodNumber,
  periodRow,
  seriesPlan,
  undatedPlans,
  walkPeriods,
  type PeriodRows,
} from './rows';

/** The total, its periods level by level, and the records without a date. */
export function* wholeRows(made: PeriodRows): Task<RowPlan[]> {
  const { spec, computed } = made;
  const { whole } = computed;
  const plans: RowPlan[] = [
    seriesPlan(made, { kind: 'total', level: 0, keys: [] }, ['All periods', null, null], whole),
  ];
  walkPeriods(
    whole,
    computed,
    (level, depth, k, partOf) =>
      plans.push({
        partOf,
        make: () => ({
          kind: depth === spec.levels.length - 1 ? 'group' : 'total',
          level: depth + 1,
          ...periodRow(made, level, k),
          partOf,
        }),
        number: (c) => periodNumber(made, level, k, c),
      }) - 1,
    0,
  );
  yield undefined;
  plans.push(...undatedPlans(made, whole, ['no date', null, null]));
  return plans;
}

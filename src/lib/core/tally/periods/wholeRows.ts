import type { RowPlan } from '../answer';
import { marked } from '../result';
import {
  periodNumber,
  periodRow,
  totalCells,
  totalMarks,
  totalNumber,
  undatedWhere,
  walkPeriods,
  type PeriodRows,
} from './rows';

/** The total, its periods level by level, and the records without a date. */
export function wholeRows(made: PeriodRows): RowPlan[] {
  const { spec, computed } = made;
  const { whole } = computed;
  const plans: RowPlan[] = [
    {
      partOf: -1,
      make: () => ({
        kind: 'total',
        level: 0,
        keys: [],
        cells: ['All periods', null, null, ...totalCells(made, whole.records, whole.totals)],
        ...marked(totalMarks(made, whole)),
      }),
      number: (c) => totalNumber(made, c, whole.records, whole.totals),
    },
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
  const { undated } = whole;
  if (undated.records > 0)
    plans.push({
      partOf: 0,
      make: () => ({
        kind: 'outside',
        level: 1,
        keys: [null, null, null],
        cells: ['no date', null, null, ...totalCells(made, undated.records, undated.values)],
        where: undatedWhere(spec.column),
        partOf: 0,
      }),
      number: (c) => totalNumber(made, c, undated.records, undated.values),
    });
  return plans;
}

import { USUAL_CALENDAR } from '../../../table/period';
import {
  common,
  dateFor,
  measuresFor,
  NEEDS,
  periodFor,
  wishedKeys,
  type FirstGuess,
} from '../../wish/guess';
import type { PeriodsSpec } from './spec';

export const periodsGuess: FirstGuess<PeriodsSpec> = {
  question: 'How did it go, period by period?',
  found: 'period month quarter year week rollup over time against before trend',
  ofColumn: { words: 'roll up by period', types: ['number', 'date', 'datetime'] },
  measures: () => ['records'],
  meant: (wish) => wish.periods !== undefined,
  guess(facts, wish) {
    const date = dateFor(facts, wish);
    if (!date) return { needs: NEEDS.date };
    const span = periodFor(date);
    const levels: PeriodsSpec['levels'] = wish.period
      ? (wish.periods ?? [wish.period])
      : span === 'year'
        ? ['year', 'quarter']
        : span === 'quarter'
          ? ['quarter', 'month']
          : [span === 'month' ? 'month' : 'day'];
    return {
      tally: {
        ...common,
        kind: 'periods',
        column: date.id,
        levels,
        by: wishedKeys(facts, wish).slice(0, 4),
        nest: 'periods',
        measures: measuresFor(facts, wish.column === date.id ? {} : wish),
        ...(wish.yearStartsIn !== undefined && {
          calendar: { ...USUAL_CALENDAR, yearStartsIn: wish.yearStartsIn },
        }),
        against: levels.length > 1 && span === 'year' ? ['yearBefore'] : ['previous'],
        running: false,
        toDate: false,
      },
    };
  },
};

import { noFinerThan, USUAL_CALENDAR, type CalendarPeriod } from '../../../table/period';
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

/** Levels from the longer to the shorter; one where both are the same. */
const within = (longer: CalendarPeriod, shorter: CalendarPeriod): PeriodsSpec['levels'] =>
  longer === shorter ? [longer] : [longer, shorter];

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
        ? within('year', noFinerThan('quarter', date.rhythm))
        : span === 'quarter'
          ? within('quarter', noFinerThan('month', date.rhythm))
          : [span];
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

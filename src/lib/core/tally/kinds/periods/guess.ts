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
import type { Wish } from '../../wish/wish';
import type { PeriodsSpec } from './spec';

/** Levels from the longer to the shorter; one where both are the same. */
const within = (longer: CalendarPeriod, shorter: CalendarPeriod): PeriodsSpec['levels'] =>
  longer === shorter ? [longer] : [longer, shorter];

/** What is counted since the start of the year, or set against the year before, stands within years. */
const levelsOf = (levels: readonly CalendarPeriod[], wish: Wish): PeriodsSpec['levels'] =>
  (wish.toDate || wish.earlier === 'yearBefore') && !levels.includes('year')
    ? ['year', ...levels]
    : [...levels];

/** Running totals are a column of the rollup, not a measure of their own. */
const ofPeriods = ({ measure, ...wish }: Wish, date: string): Wish =>
  wish.column === date
    ? {}
    : measure === 'running'
      ? wish
      : { ...wish, ...(measure && { measure }) };

export const periodsGuess: FirstGuess<PeriodsSpec> = {
  question: 'How did it go, period by period?',
  found: 'period month quarter year week rollup over time against before trend',
  asks: ['rollup', 'over time', 'trend', 'period by period'],
  ofColumn: { words: 'roll up by period', types: ['number', 'date', 'datetime'] },
  measures: () => ['records'],
  meant: (wish) =>
    wish.periods !== undefined || wish.toDate !== undefined || wish.earlier !== undefined,
  guess(facts, wish) {
    const date = dateFor(facts, wish);
    if (!date) return { needs: NEEDS.date };
    const span = periodFor(date);
    const levels: PeriodsSpec['levels'] = wish.period
      ? levelsOf(wish.periods ?? [wish.period], wish)
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
        measures: measuresFor(facts, ofPeriods(wish, date.id)),
        ...(wish.yearStartsIn !== undefined && {
          calendar: { ...USUAL_CALENDAR, yearStartsIn: wish.yearStartsIn },
        }),
        against: [
          wish.earlier ?? (levels.length > 1 && span === 'year' ? 'yearBefore' : 'previous'),
        ],
        running: wish.measure === 'running',
        toDate: wish.toDate ?? false,
      },
    };
  },
};

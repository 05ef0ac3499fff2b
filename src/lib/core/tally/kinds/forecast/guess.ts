import {
  common,
  dateFor,
  daysOf,
  measureFor,
  NEEDS,
  wishedKeys,
  type FirstGuess,
} from '../../wish/guess';
import type { ForecastSpec } from './spec';

const DAYS_A_YEAR = 365;

export const forecastGuess: FirstGuess<ForecastSpec> = {
  question: 'What comes next?',
  found: 'forecast next carry on predict trend season future',
  asks: ['forecast', 'predict', 'prediction', 'carry on', 'trend', 'seasonal', 'season', 'future'],
  ofColumn: { words: 'carry it on', types: ['number', 'date', 'datetime'] },
  meant: (wish) => wish.ahead !== undefined,
  guess(facts, wish) {
    const date = dateFor(facts, wish);
    if (!date) return { needs: NEEDS.date };
    const days = daysOf(date);
    // The list's own rhythm, where each of its dates stands for a period.
    const byLength = days > DAYS_A_YEAR ? 'month' : days > 60 ? 'week' : 'day';
    const period = wish.period ?? (date.rhythm === 'day' ? byLength : date.rhythm);
    return {
      tally: {
        ...common,
        kind: 'forecast',
        series: {
          column: date.id,
          period,
          measure: measureFor(facts, wish.column === date.id ? {} : wish),
          by: wishedKeys(facts, wish).slice(0, 4),
        },
        method: 'best',
        horizon: wish.ahead ?? (period === 'month' ? 12 : 8),
        parameters: {},
        gaps: 'refuse',
        incompleteLast: 'leaveOut',
        levels: [0.8, 0.95],
      },
    };
  },
};

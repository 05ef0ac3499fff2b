import {
  common,
  dateFor,
  measureFor,
  NEEDS,
  periodFor,
  wishedKeys,
  type FirstGuess,
} from '../../wish/guess';
import type { GrowthSpec } from './spec';

export const growthGuess: FirstGuess<GrowthSpec> = {
  question: 'How fast did it grow?',
  found: 'growth compound rate increase',
  asks: ['growth', 'grow', 'grew', 'compound growth', 'growth rate', 'increase'],
  guess(facts, wish) {
    const date = dateFor(facts, wish);
    if (!date) return { needs: NEEDS.date };
    return {
      tally: {
        ...common,
        kind: 'growth',
        series: {
          column: date.id,
          period: wish.period ?? periodFor(date),
          measure: measureFor(facts, wish.column === date.id ? {} : wish),
          by: wishedKeys(facts, wish).slice(0, 4),
        },
        ...(wish.from && wish.to && { from: wish.from, to: wish.to }),
        ahead: 1,
      },
    };
  },
};

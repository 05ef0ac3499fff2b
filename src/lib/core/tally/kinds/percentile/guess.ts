import { common, fewIn, keysFor, NEEDS, spreadFor, type FirstGuess } from '../../wish/guess';
import type { PercentileSpec } from './spec';

export const percentileGuess: FirstGuess<PercentileSpec> = {
  question: 'Where does a value stand?',
  found: 'percentile percent at or under quantile place',
  asks: ['percentile rank', 'percent rank', 'percentile', 'percentiles', 'quantile', 'quantiles'],
  ofColumn: { words: 'where a value stands', types: ['number'] },
  measures: () => ['percentile'],
  meant: (wish) => wish.percents !== undefined || wish.stands !== undefined,
  guess(facts, wish) {
    const column = spreadFor(facts, wish);
    if (!column) return { needs: NEEDS.number };
    const [key] = wish.by?.length ? keysFor(facts, wish) : [];
    return {
      tally: {
        ...common,
        kind: 'percentile',
        column: column.id,
        ...(key && { key }),
        percentiles: wish.percents ?? [10, 25, 50, 75, 90],
        definition: 7,
        ranksOf: wish.stands ?? [],
        rankMethod: 'atOrUnder',
        few: fewIn(facts),
      },
    };
  },
};

import { common, NEEDS, numberFor, type FirstGuess } from '../../wish/guess';
import type { LineSpec } from './spec';

export const lineGuess: FirstGuess<LineSpec> = {
  question: 'Does one number go with another?',
  found: 'line slope regression correlation relation scatter points two columns',
  asks: [
    'line',
    'slope',
    'regression',
    'correlation',
    'correlate',
    'relation',
    'scatter',
    'goes with',
    'go with',
  ],
  guess(facts, wish) {
    const y = numberFor(facts, wish);
    if (!y) return { needs: NEEDS.number };
    const able = facts.columns.filter(
      (c) => c.type === 'number' && c.id !== y.id && c.distinct > 2 && c.values > 2,
    );
    const x = able.find((c) => wish.by?.includes(c.id)) ?? able[0];
    if (!x) return { needs: 'It needs two columns of numbers.' };
    return {
      tally: {
        ...common,
        kind: 'line',
        x: x.id,
        y: y.id,
        by: [],
        origin: false,
        at: [],
        percent: 95,
        far: 3,
      },
    };
  },
};

import { common, keysFor, NEEDS, spreadFor, type FirstGuess } from '../guess';
import type { SpreadSpec } from './spec';

export const spreadGuess: FirstGuess<SpreadSpec> = {
  question: 'How far do groups spread?',
  found: 'spread deviation quartiles mean median box range variance',
  guess(facts, wish) {
    const column = spreadFor(facts, wish);
    if (!column) return { needs: NEEDS.number };
    const [key] = keysFor(facts, wish);
    return {
      tally: {
        ...common,
        kind: 'spread',
        columns: [column.id],
        ...(key && key.column !== column.id && { key }),
        facts: [
          { kind: 'values' },
          { kind: 'mean' },
          { kind: 'sd' },
          { kind: 'min' },
          { kind: 'lowerQuartile' },
          { kind: 'median' },
          { kind: 'upperQuartile' },
          { kind: 'max' },
        ],
        few: 10,
      },
    };
  },
};

import { common, keyOf, keysFor, NEEDS, spreadFor, type FirstGuess } from '../guess';
import type { FrequencySpec } from './spec';

export const frequencyGuess: FirstGuess<FrequencySpec> = {
  question: 'How do the values fall?',
  found: 'frequency distribution bands bins histogram often occurs',
  guess(facts, wish) {
    const wished =
      facts.columns.find((c) => c.id === wish.column) ??
      facts.columns.find((c) => c.id === wish.by?.[0]);
    const column = wished ?? spreadFor(facts, wish);
    const key = column ? keyOf(column, wish.period) : keysFor(facts, wish)[0];
    if (!key) return { needs: NEEDS.group };
    const often = column?.type === 'text' || column?.type === 'yesno';
    return {
      tally: {
        ...common,
        kind: 'frequency',
        key: often ? { ...key, order: { by: 'count', descending: true } } : key,
        measures: [],
        few: 10,
      },
    };
  },
};

import {
  bandsAsked,
  common,
  fewIn,
  keyOf,
  keysFor,
  measuresFor,
  NEEDS,
  spreadFor,
  type FirstGuess,
} from '../../wish/guess';
import type { FrequencySpec } from './spec';

export const frequencyGuess: FirstGuess<FrequencySpec> = {
  question: 'How do the values fall?',
  found: 'frequency distribution bands bins histogram often occurs',
  asks: [
    'frequency',
    'frequencies',
    'distribution',
    'distributed',
    'bins',
    'histogram',
    'occurs',
    'fall',
    'falls',
  ],
  ofColumn: { words: 'how it falls', types: ['text', 'number', 'date', 'datetime', 'yesno'] },
  measures: () => ['records'],
  meant: (wish) =>
    wish.often === true ||
    wish.edges !== undefined ||
    wish.width !== undefined ||
    wish.table !== undefined ||
    (wish.bands === true && !wish.by?.length),
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
        key: often
          ? { ...key, order: { by: 'count', descending: true } }
          : { ...key, ...(column && bandsAsked(column, wish)) },
        // What else was named stands beside the counts.
        measures: measuresFor(facts, wish).filter(
          (measure) =>
            wish.measures !== undefined &&
            measure.column !== undefined &&
            measure.column !== column?.id,
        ),
        few: fewIn(facts),
      },
    };
  },
};

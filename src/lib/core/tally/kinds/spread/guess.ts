import { common, fewIn, keysFor, NEEDS, spreadFor, type FirstGuess } from '../../wish/guess';
import type { Wish } from '../../wish/wish';
import type { SpreadSpec } from './spec';

/** Facts asked for in so many words; null where no more than one was, or they are of several columns. */
function factsAsked(column: string, { measures = [] }: Wish): SpreadSpec['facts'] | null {
  const of = measures.filter((measure) => measure.column !== undefined);
  if (of.length < 2 || of.some((measure) => measure.column !== column)) return null;
  const counts = measures.length > of.length ? [{ kind: 'values' as const }] : [];
  return [...counts, ...of.map(({ kind }) => ({ kind }))];
}

export const spreadGuess: FirstGuess<SpreadSpec> = {
  question: 'How far do groups spread?',
  found: 'spread deviation quartiles mean median box range variance',
  asks: ['spread', 'spreads', 'how far', 'box', 'quartiles'],
  ofColumn: { words: 'how far groups spread', types: ['number'] },
  measures: ({ facts }) => facts.map(({ kind }) => kind),
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
        facts: factsAsked(column.id, wish) ?? [
          { kind: 'values' },
          { kind: 'mean' },
          { kind: 'sd' },
          { kind: 'min' },
          { kind: 'lowerQuartile' },
          { kind: 'median' },
          { kind: 'upperQuartile' },
          { kind: 'max' },
        ],
        few: fewIn(facts),
      },
    };
  },
};

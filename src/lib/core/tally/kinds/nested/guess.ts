import { common, keysFor, measureFor, type FirstGuess } from '../../wish/guess';
import type { NestedSpec } from './spec';

export const nestedGuess: FirstGuess<NestedSpec> = {
  question: 'What is the best of each?',
  found: 'nested best of each highest group which led',
  asks: ['led'],
  meant: (wish) => wish.best === true,
  guess(facts, wish) {
    const [outer, inner] = keysFor(facts, wish);
    if (!outer || !inner)
      return { needs: 'It needs two columns to group by, one within the other.' };
    // The columns of the inner result go by the names of the list's columns.
    const nameOf = (id: string): string => facts.columns.find((c) => c.id === id)?.name ?? id;
    const ledger = { ...common, kind: 'ledger', sort: [], records: false } as const;
    return {
      tally: {
        ...common,
        kind: 'nested',
        inner: {
          ...ledger,
          sort: [],
          groups: [outer, inner],
          measures: [measureFor(facts, wish)],
        },
        table: 'main',
        outer: {
          ...ledger,
          sort: [],
          groups: [
            {
              column: nameOf(outer.column),
              loose: true,
              order: { by: 'label', descending: false },
            },
          ],
          measures: [
            { kind: 'max', column: 'm1' },
            { kind: 'atMax', column: 'm1', other: nameOf(inner.column) },
            { kind: 'min', column: 'm1' },
            { kind: 'mean', column: 'm1' },
          ],
        },
      },
    };
  },
};

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { WORDS_OF_KINDS } from '$lib/core/tally/wish/guesses';
import { MEASURE_WORDS } from '$lib/core/wish/words/measureWords';
import { END_WORDS } from '$lib/core/wish/words/orderWords';
import { PERIOD_WORDS } from '$lib/core/wish/words/periodWords';
import { COMPARED, NOT_WORDS, ONLY_WORDS } from '$lib/core/wish/words/testWords';
import { orders, repairs } from '../../support/wishLists';
import { offersOf } from '../../support/wish';

/** Words of the grammar that a column could be called by. */
const WORDS = [
  ...new Set([
    ...MEASURE_WORDS,
    ...PERIOD_WORDS.keys(),
    ...WORDS_OF_KINDS.keys(),
    ...END_WORDS.keys(),
    ...NOT_WORDS,
    ...ONLY_WORDS,
    ...COMPARED.flatMap(([words]) => words),
  ]),
].filter((word) => /^[a-z]{4,}$/.test(word));

const listWith = (name: string): Table => ({
  length: 4,
  columns: [
    textColumn('Shop', ['Mill Lane', 'Harbour', 'Mill Lane', 'Harbour']),
    scalarColumn('Kilos', 'number', [1, 2, 3, 4]),
    scalarColumn(name, 'number', [10, 20, 30, 40], { id: 'own' }),
  ],
});

describe('a list whose columns bear words of the grammar', () => {
  it.each(WORDS)(
    'called “%s”: the column where it is measured, before “by” and behind “of”',
    (word) => {
      const ask = offersOf(listWith(`${word[0].toUpperCase()}${word.slice(1)}`), 'Orders');
      for (const typed of [`sum of ${word} by shop`, `highest of ${word} by shop`]) {
        const [offer] = ask(typed);
        expect([typed, JSON.stringify(offer.tally).includes('"own"'), offer.left]).toEqual([
          typed,
          true,
          [],
        ]);
      }
      // Another column is still found beside it.
      const [other] = ask('sum of kilos by shop');
      expect(JSON.stringify(other.tally)).toContain('"Kilos"');
      expect(JSON.stringify(other.tally)).not.toContain('"own"');
    },
  );
});

describe('a word that means nothing', () => {
  const lists = [offersOf(repairs, 'Repair jobs'), offersOf(orders, 'Bakery orders')] as const;
  const wishes = [
    [
      'charge by workshop in 2025',
      'average charge over 100 by fault',
      'top 3 technicians by charge',
      'charge in 2024 and 2025 by workshop',
      'how many jobs not collected by workshop',
      'charge by fault where technician is ada moss or ben holt',
      'running total of charge by month',
      'growth of charge from 2024 to 2025',
    ],
    [
      'kilos by shop without buns',
      'price per kilo by item, mill lane only',
      'kilos by month compared with last year',
      'price in bands 5, 20, 50',
      '90th percentile of price by shop',
      'kilos by shop, (harbour or rye) and price under 40',
    ],
  ] as const;

  it('is named by every offer, wherever it is put', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(0, 1),
        fc.nat(),
        fc.stringMatching(/^[bcdfghjklmnpqrstvwxz]{5,9}$/),
        fc.nat(),
        (list, which, word, place) => {
          const words = wishes[list][which % wishes[list].length].split(' ');
          const at = place % (words.length + 1);
          const typed = [...words.slice(0, at), word, ...words.slice(at)].join(' ');
          for (const { left } of lists[list](typed))
            expect([typed, left.join(' ').includes(word)]).toEqual([typed, true]);
        },
      ),
      { numRuns: 300, seed: 7 },
    );
  });
});

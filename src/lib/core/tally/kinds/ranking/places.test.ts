import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '../../../task/task';
import { bitsetOf } from '../../../table/bitset';
import { scalarColumn } from '../../../table/column';
import { placesOf, TIES, withinTop } from './places';
import { rankBy } from './rankBy';

const values = [9, 7, 7, 4, 4, 4, 1];
const order = values.map((_, k) => k);

describe('places', () => {
  it.each([
    ['gap', [1, 2, 2, 4, 4, 4, 7]],
    ['noGap', [1, 2, 2, 3, 3, 3, 4]],
    ['order', [1, 2, 3, 4, 5, 6, 7]],
    ['mean', [1, 2.5, 2.5, 5, 5, 5, 7]],
  ] as const)('%s', (ties, places) =>
    expect([...finish(placesOf(values, order, ties))]).toEqual(places),
  );

  it('a tie at the edge of the top is kept', () => {
    expect([0, 1, 2, 3, 4, 9].map((k) => withinTop(values, order, k))).toEqual([0, 1, 3, 3, 6, 7]);
  });

  it('ranking while sorting gives the places of ranking afterwards', () => {
    const value = fc.option(fc.constantFrom(-2.5, 0, 0.1, 0.25, 1, 7, 1e9, 123.45), { nil: null });
    fc.assert(
      fc.property(
        fc.array(value, { minLength: 1, maxLength: 40 }),
        fc.constantFrom(...TIES),
        fc.boolean(),
        fc.constantFrom(0, 2),
        fc.integer({ min: 1, max: 5 }),
        (all, ties, descending, decimals, every) => {
          const column = scalarColumn('v', 'number', all, { decimals });
          const kept = all.map((_, i) => i).filter((i) => i % every === 0);
          const current = Int32Array.from(all.map((_, i) => all.length - 1 - i));
          const { order: got, places } = finish(
            rankBy(bitsetOf(all.length, kept), column, descending, ties, current),
          );
          const want = [...current]
            .filter((i) => kept.includes(i) && all[i] !== null)
            .sort((a, b) => (descending ? -1 : 1) * ((all[a] ?? 0) - (all[b] ?? 0)));
          expect([...got]).toEqual(want);
          expect([...places]).toEqual([...finish(placesOf(column.values, want, ties))]);
        },
      ),
    );
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '../../../task/task';
import { bitsetOf } from '../../../table/bitset';
import { scalarColumn } from '../../../table/column';
import { TIES, type Ties } from './places';
import { rankBy } from './rankBy';

const value = fc.oneof(
  fc.constantFrom(null, 0, 1, 2.5, -3),
  fc.integer({ min: -4, max: 4 }),
  fc.double({ min: -1e6, max: 1e6, noNaN: true }),
);

/** The places of figures that are in order, one by one, by what each way of ties says of itself. */
function placesOf(ordered: readonly number[], ties: Ties): number[] {
  return ordered.map((v, k) => {
    const first = ordered.indexOf(v);
    const equal = ordered.filter((w) => w === v).length;
    switch (ties) {
      case 'gap':
        return first + 1;
      case 'noGap':
        return new Set(ordered.slice(0, first)).size + 1;
      case 'order':
        return k + 1;
      case 'mean':
        return first + (equal + 1) / 2;
    }
  });
}

describe('places of records', () => {
  it('are those of the plain rule, over any selection, order and way of ties', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ value, chosen: fc.boolean() }), { maxLength: 60 }),
        fc.boolean(),
        fc.constantFrom(...TIES),
        fc.boolean(),
        fc.boolean(),
        (records, descending, ties, all, turned) => {
          const chosen = records.flatMap((r, i) => (all || r.chosen ? [i] : []));
          const current = records.map((_, i) => i);
          if (turned) current.reverse();
          const column = scalarColumn(
            'Fares',
            'number',
            records.map((r) => r.value),
          );
          const { order, places } = finish(
            rankBy(
              bitsetOf(records.length, chosen),
              column,
              descending,
              ties,
              Int32Array.from(current),
            ),
          );
          const valueOf = (i: number): number => records[i].value ?? NaN;
          const expected = current
            .filter((i) => chosen.includes(i) && records[i].value !== null)
            .toSorted((a, b) => (descending ? valueOf(b) - valueOf(a) : valueOf(a) - valueOf(b)));
          expect([...order]).toEqual(expected);
          expect([...places]).toEqual(placesOf(expected.map(valueOf), ties));
        },
      ),
      { numRuns: 400 },
    );
  });

  it('go on over many records, with ties across the stretches they are written in', () => {
    const n = 200_000;
    const column = scalarColumn(
      'Fares',
      'number',
      Array.from({ length: n }, (_, i) => Math.floor(i / 50_000)),
    );
    const all = bitsetOf(
      n,
      Array.from({ length: n }, (_, i) => i),
    );
    const current = Int32Array.from({ length: n }, (_, i) => i);
    const last = (ties: Ties): number[] => {
      const { places } = finish(rankBy(all, column, false, ties, current));
      return [places[0], places[49_999], places[50_000], places[n - 1]];
    };
    expect(last('gap')).toEqual([1, 1, 50_001, 150_001]);
    expect(last('noGap')).toEqual([1, 1, 2, 4]);
    expect(last('order')).toEqual([1, 50_000, 50_001, n]);
    expect(last('mean')).toEqual([25_000.5, 25_000.5, 75_000.5, 175_000.5]);
  });
});

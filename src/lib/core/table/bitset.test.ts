import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { and, bitsetOf, count, fullBitset, has, members, or, without } from './bitset';

const sets = fc
  .integer({ min: 0, max: 200 })
  .chain((n) =>
    fc.tuple(
      fc.constant(n),
      fc.uniqueArray(fc.nat(Math.max(0, n - 1))),
      fc.uniqueArray(fc.nat(Math.max(0, n - 1))),
    ),
  )
  .map(([n, a, b]) => [n, n ? a : [], n ? b : []] as const);

describe('sets of records', () => {
  it('do what sets do', () => {
    fc.assert(
      fc.property(sets, ([n, a, b]) => {
        const [x, y] = [bitsetOf(n, a), bitsetOf(n, b)];
        const sorted = (items: Iterable<number>): number[] => [...items].sort((p, q) => p - q);
        expect([...members(and(x, y))]).toEqual(sorted(a.filter((i) => b.includes(i))));
        expect([...members(or(x, y))]).toEqual(sorted(new Set([...a, ...b])));
        expect([...members(without(x, y))]).toEqual(sorted(a.filter((i) => !b.includes(i))));
        expect(count(x)).toBe(a.length);
        for (const i of a) expect(has(x, i)).toBe(true);
      }),
    );
  });

  it('hold no record past the end', () => {
    for (const n of [0, 1, 31, 32, 33, 64, 100]) expect(count(fullBitset(n))).toBe(n);
  });
});

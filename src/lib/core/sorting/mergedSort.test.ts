import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '../task/task';
import { mergedSort } from './mergedSort';

interface Item {
  readonly key: number;
  readonly at: number;
}

describe('sorting by runs that are merged', () => {
  it('is the stable sort of the comparison, whatever the length', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(0, 1, 2, 511, 512, 513, 1024, 1537, 4000),
        fc.integer({ min: 1, max: 50 }),
        fc.integer(),
        (length, keys, seed) => {
          // Few keys, so that many are equal; the sequence of a linear congruential generator.
          let state = seed >>> 0;
          const items = Array.from({ length }, (_, at): Item => {
            state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
            return { key: (state >>> 8) % keys, at };
          });
          const compare = (a: Item, b: Item): number => a.key - b.key;
          const before = [...items];
          expect(finish(mergedSort(items, compare))).toEqual(items.toSorted(compare));
          expect(items).toEqual(before);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('pauses', () => {
    let pauses = 0;
    const items = Array.from({ length: 50_000 }, (_, k) => (k * 7919) % 50_000);
    const steps = mergedSort(items, (a, b) => a - b);
    while (!steps.next().done) pauses++;
    // About 50,000 × 7 comparisons in merges of at most some thousands each.
    expect(pauses).toBeGreaterThan(40);
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '../task/task';
import { textColumn } from '../table/column';
import { momentsOf, momentsOfGroups, sumsOfGroups, type Moments } from './moments';
import { codesAsValues, valuesOf } from './valuesOf';

const facts = (m: Moments): unknown[] => [
  m.count(0),
  m.sum(0),
  m.mean(0),
  m.min(0),
  m.max(0),
  m.squares(0),
  m.deviation(0),
  m.farthest(0, 1),
  m.farthest(0, m.mean(0)),
];

describe('the moments of a whole selection', () => {
  // A selection that is one group has a loop of its own: it must come to the very same doubles.
  it('are to the last digit those of its one group among others', () => {
    const value = fc.oneof(
      fc.double({ noNaN: true, min: -1e12, max: 1e12 }),
      fc.constantFrom(NaN, 0, -0, 1e300, -1e300, 0.1),
    );
    fc.assert(
      fc.property(fc.array(value, { maxLength: 300 }), fc.boolean(), (list, squares) => {
        const values = Float64Array.from(list);
        const records = Int32Array.from(values.keys()).filter((i) => i % 7 !== 3);
        const groups = new Int32Array(values.length);
        expect(facts(finish(momentsOf(values, records, squares)))).toEqual(
          facts(finish(momentsOfGroups(values, groups, 2, records, squares))),
        );
      }),
      { numRuns: 300 },
    );
  });

  it('are the same where sums alone are wanted', () => {
    fc.assert(
      // Small whole numbers stand for many of one size: the first of those is the farthest.
      fc.property(
        fc.array(fc.oneof(fc.double({ min: -1e9, max: 1e9 }), fc.integer({ min: -2, max: 2 })), {
          maxLength: 200,
        }),
        (list) => {
          const values = Float64Array.from(list);
          const records = Int32Array.from(values.keys());
          const groups = new Int32Array(values.length);
          const sums = (size: number): unknown[] => {
            const m = finish(sumsOfGroups(values, groups, size, records));
            return [m.count(0), m.sum(0), m.farthest(0, 0)];
          };
          expect(sums(1)).toEqual(sums(2));
        },
      ),
      { numRuns: 200 },
    );
  });

  it('lie farthest off in the first record of several that are as far', () => {
    const m = finish(
      sumsOfGroups(Float64Array.of(1, -5, 5, -5), new Int32Array(4), 1, Int32Array.of(0, 1, 2, 3)),
    );
    expect(m.farthest(0, 0)).toBe(1);
  });

  it('hold over more records than one stretch has', () => {
    const values = Float64Array.from({ length: 300_000 }, (_, i) => (i % 1000) / 8);
    const m = finish(momentsOf(values, Int32Array.from(values.keys()), true));
    // 300 times 0, 0.125, … 124.875: the mean is 62.4375, Σ(x − mean)² = n (1000² − 1) / 12 / 64.
    expect(m.sum(0)).toBe(300_000 * 62.4375);
    expect(m.squares(0)).toBeCloseTo((300_000 * (1000 ** 2 - 1)) / 12 / 64, 3);
    expect([m.min(0), m.max(0)]).toEqual([0, 124.875]);
    expect(m.farthest(0, 0)).toBe(999);
  });
});

describe('texts as numbers', () => {
  const column = textColumn('Vessel', ['Tern', null, 'Auk', 'tern', 'Auk']);

  it('are their codes, and none where a cell is blank', () => {
    expect([...finish(codesAsValues(column))]).toEqual([0, NaN, 1, 2, 1]);
    expect([...finish(codesAsValues(column, Int32Array.of(20, 10, 30)))]).toEqual([
      20,
      NaN,
      10,
      30,
      10,
    ]);
  });

  it('stand in the order of language, and lead back to their text', () => {
    const { values, codeOf } = finish(valuesOf(column));
    const ordered = [...values]
      .filter((v) => v === v)
      .sort((a, b) => a - b)
      .map((v) => column.dictionary[codeOf?.(v) ?? -1]);
    expect(ordered).toEqual(['Auk', 'Auk', 'tern', 'Tern']);
  });
});

import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '../task/task';
import { scalarColumn, textColumn } from '../table/column';
import type { Table } from '../table/table';
import { fromMoments } from './fromMoments';
import { leafGrouping, totalGrouping } from './grouping';
import { MEASURE_KINDS, suits, type Measure } from './measure';
import { momentsOfGroups } from './moments';
import {
  DEFINITIONS,
  lowerBound,
  percentileRank,
  quantileBy,
  upperBound,
} from './quantileDefinitions';
import { computeMeasures } from './compute';

function figures(
  table: Table,
  leaf: readonly number[],
  measures: readonly Measure[],
  groupings?: { size: number; of: Int32Array }[],
) {
  const records = Int32Array.from({ length: table.length }, (_, i) => i);
  const leaves = Math.max(...leaf, 0) + 1;
  return finish(
    computeMeasures(
      { table, records, ordered: records, leafOf: Int32Array.from(leaf), leaves },
      groupings ?? [leafGrouping(leaves), totalGrouping(leaves)],
      measures,
    ),
  );
}

const table: Table = {
  length: 6,
  columns: [
    scalarColumn('x', 'number', [4, 9, null, 9, 1, 4]),
    scalarColumn('w', 'number', [1, 2, 3, null, 0, 3]),
    textColumn('who', ['Gannet', 'Tern', 'Tern', 'Stormcock', null, 'Gannet']),
  ],
};

describe('measures of two columns', () => {
  it('weighted mean skips a record that lacks either', () => {
    const [leaf, total] = figures(
      table,
      [0, 0, 0, 1, 1, 1],
      [{ kind: 'weightedMean', column: 'x', other: 'w' }],
    );
    // (4·1 + 9·2) ÷ 3; (1·0 + 4·3) ÷ 3; all: (4 + 18 + 0 + 12) ÷ 6.
    expect([...leaf[0]]).toEqual([22 / 3, 4]);
    expect(total[0][0]).toBeCloseTo(34 / 6, 14);
    expect(
      figures(
        table,
        [0, 0, 0, 0, 0, 0],
        [{ kind: 'weightedMean', column: 'w', other: 'x' }],
      )[1][0][0],
    ).toBeCloseTo((4 + 18 + 0 + 12) / 18, 14);
  });

  it('the value at the highest is the first one’s on a tie, and ties are counted', () => {
    const [leaf, total] = figures(
      table,
      [0, 0, 0, 1, 1, 1],
      [
        { kind: 'atMax', column: 'x', other: 'who' },
        { kind: 'maxTies', column: 'x' },
        { kind: 'atMin', column: 'x', other: 'w' },
        { kind: 'minTies', column: 'x' },
      ],
    );
    const names = ['Gannet', 'Tern', 'Stormcock'];
    expect([...leaf[0]].map((c) => names[c])).toEqual(['Tern', 'Stormcock']);
    expect(names[total[0][0]]).toBe('Tern');
    expect([...leaf[1], total[1][0]]).toEqual([1, 1, 2]);
    expect([...leaf[2], total[2][0]]).toEqual([1, 0, 0]);
    expect([...leaf[3], total[3][0]]).toEqual([1, 1, 1]);
  });

  it('the mode is the smallest of several, and how many there are', () => {
    const [, total] = figures(
      table,
      [0, 0, 0, 0, 0, 0],
      [
        { kind: 'mode', column: 'x' },
        { kind: 'modeTies', column: 'x' },
      ],
    );
    expect([total[0][0], total[1][0]]).toEqual([4, 2]);
  });
});

describe('merging parts equals the whole', () => {
  const value = fc.option(fc.integer({ min: -20, max: 20 }), { nil: null });
  const rows = fc.array(fc.tuple(value, fc.constantFrom('a', 'b', 'c', null), fc.nat({ max: 4 })), {
    minLength: 1,
    maxLength: 40,
  });
  it('for every measure, whatever the leaves', () => {
    fc.assert(
      fc.property(rows, (all) => {
        const list: Table = {
          length: all.length,
          columns: [
            scalarColumn(
              'x',
              'number',
              all.map((r) => r[0]),
            ),
            textColumn(
              't',
              all.map((r) => r[1]),
            ),
            scalarColumn(
              'w',
              'number',
              all.map((_, i) => (i % 3) + 1),
            ),
          ],
        };
        const measures: Measure[] = MEASURE_KINDS.flatMap((kind) =>
          list.columns
            .slice(0, 2)
            .filter((c) => suits(kind, c))
            .map((c) => ({ kind, column: c.id, other: kind === 'weightedMean' ? 'w' : 't' })),
        );
        const [, split] = figures(
          list,
          all.map((r) => r[2]),
          measures,
        );
        const [, whole] = figures(
          list,
          all.map(() => 0),
          measures,
        );
        split.forEach((f, k) => {
          if (Number.isNaN(whole[k][0])) expect(f[0]).toBeNaN();
          else expect(f[0]).toBeCloseTo(whole[k][0], 8);
        });
      }),
      { numRuns: 150 },
    );
  });
});

describe('NIST StRD, univariate', () => {
  const moments = (values: readonly number[]) => {
    const v = Float64Array.from(values);
    return finish(momentsOfGroups(v, new Int32Array(v.length), 1, Int32Array.from(v.keys()), true));
  };
  /** NumAcc2..4: a start value, then so many pairs around it. */
  const pairs = (middle: number, a: number, b: number) => [
    middle,
    ...Array.from({ length: 500 }, () => [a, b]).flat(),
  ];
  // Certified mean and standard deviation of each set.
  it.each<[string, number[], number, number, number]>([
    ['NumAcc1', [10000001, 10000003, 10000002], 10000002, 1, 15],
    ['NumAcc2', pairs(1.2, 1.1, 1.3), 1.2, 0.1, 14],
    ['NumAcc3', pairs(1000000.2, 1000000.1, 1000000.3), 1000000.2, 0.1, 9],
    ['NumAcc4', pairs(10000000.2, 10000000.1, 10000000.3), 10000000.2, 0.1, 8],
  ])('%s', (_, values, mean, sd, digits) => {
    const m = moments(values);
    expect(Math.abs(m.mean(0) / mean - 1)).toBeLessThan(1e-15);
    const got = fromMoments('sd', m, 0) ?? NaN;
    // NumAcc3 and 4 cannot do better: the values themselves are rounded to doubles.
    expect(-Math.log10(Math.abs(got - sd) / sd || 1e-16)).toBeGreaterThan(digits - 1);
  });
});

describe('sample quantiles', () => {
  const x = [2, 3, 5, 8, 13];
  // By the formulas of Hyndman and Fan (1996) for n = 5.
  it.each<[number, number, number[]]>([
    [0.25, 1, [3]],
    [0.25, 2, [3]],
    [0.25, 3, [2]],
    [0.25, 4, [2.25]],
    [0.25, 5, [2.75]],
    [0.25, 6, [2.5]],
    [0.25, 7, [3]],
    [0.25, 8, [2 + 2 / 3]],
    [0.25, 9, [2.6875]],
    [0.4, 1, [3]],
    [0.4, 2, [4]],
    [0.4, 3, [3]],
    [0.9, 6, [13]],
    [0.9, 7, [11]],
    [0, 8, [2]],
    [1, 5, [13]],
  ])('p %d by definition %d', (p, definition, [q]) =>
    expect(quantileBy(x, p, definition as 1)).toBeCloseTo(q, 12),
  );

  it('every definition lies within the values, rises with p, and is the value itself for one', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: -99, max: 99 }), { minLength: 1, maxLength: 20 }),
        fc.constantFrom(...DEFINITIONS),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (values, d, p, q) => {
          const ordered = [...values].sort((a, b) => a - b);
          const [low, high] = [Math.min(p, q), Math.max(p, q)];
          expect(quantileBy(ordered, low, d)).toBeLessThanOrEqual(
            quantileBy(ordered, high, d) + 1e-9,
          );
          expect(quantileBy(ordered, p, d)).toBeGreaterThanOrEqual(ordered[0]);
          expect(quantileBy(ordered, p, d)).toBeLessThanOrEqual(ordered[ordered.length - 1]);
        },
      ),
    );
    expect(quantileBy([], 0.5)).toBeNaN();
  });

  it('the interpolated percentile rank and definition 7 undo each other', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: -99, max: 99 }), { minLength: 2, maxLength: 20 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (values, p) => {
          const ordered = [...values].sort((a, b) => a - b);
          expect(percentileRank(ordered, quantileBy(ordered, p, 7), 'interpolated')).toBeCloseTo(
            p,
            9,
          );
        },
      ),
    );
  });

  it('percentile ranks by hand, with ties and outside', () => {
    const t = [1, 2, 2, 2, 5];
    expect(percentileRank(t, 2)).toBe(0.8);
    expect(percentileRank(t, 2, 'under')).toBe(0.2);
    expect(percentileRank(t, 2, 'middle')).toBe(0.5);
    expect(percentileRank(t, 2, 'interpolated')).toBe(0.25);
    expect(percentileRank(t, 3.5, 'interpolated')).toBe(0.875);
    expect(percentileRank(t, 0, 'interpolated')).toBeNaN();
    expect(percentileRank(t, 9)).toBe(1);
    expect(percentileRank([], 1)).toBeNaN();
    expect([lowerBound(t, 2), upperBound(t, 2)]).toEqual([1, 4]);
  });
});

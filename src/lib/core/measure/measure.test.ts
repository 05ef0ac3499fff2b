import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '../task/task';
import { fromMoments, isFromMoments } from './fromMoments';
import { fromSlice } from './fromSlices';
import { MEASURE_KINDS, measureWords, type MeasureKind } from './measure';
import { directTotal } from './compensated';
import { Moments, momentsOfGroups, sumsOfGroups } from './moments';
import { quantiles } from './quantile';
import { runsOf } from './runs';

const all = (n: number): Int32Array => Int32Array.from({ length: n }, (_, i) => i);
const momentsOf = (values: readonly number[]): Moments =>
  finish(
    momentsOfGroups(
      Float64Array.from(values),
      new Int32Array(values.length),
      1,
      all(values.length),
      true,
    ),
  );
const measure = (kind: MeasureKind, values: readonly number[], percent?: number): number => {
  const there = values.filter((v) => !Number.isNaN(v));
  return (
    fromMoments(kind, momentsOf(values), 0) ??
    fromSlice({ kind, percent }, Float64Array.from(there), 0, there.length)
  );
};

describe('measures worked out by hand', () => {
  // 2 4 4 4 5 5 7 9: mean 5, population standard deviation 2.
  const eight = [2, 4, 4, 4, 5, 5, 7, 9];
  it.each([
    ['values', 8],
    ['sum', 40],
    ['mean', 5],
    ['min', 2],
    ['max', 9],
    ['range', 7],
    ['median', 4.5],
    ['sdPopulation', 2],
    ['variancePopulation', 4],
    ['variance', 32 / 7],
    ['standardError', Math.sqrt(32 / 7 / 8)],
    ['cv', Math.sqrt(32 / 7) / 5],
    ['lowerQuartile', 4],
    ['upperQuartile', 5.5],
    ['iqr', 1.5],
    ['distinct', 5],
    ['mode', 4],
    ['product', 2 * 4 * 4 * 4 * 5 * 5 * 7 * 9],
    ['meanDeviation', 1.5],
    ['medianDeviation', 1.5],
    // Σd³ = −27−1−1−1+0+0+8+64 = 42; g1 = (42/8)/8 = 0.65625
    ['skewnessPopulation', 0.65625],
    ['skewness', (0.65625 * Math.sqrt(56)) / 6],
    // Σd⁴ = 81+1+1+1+0+0+16+256 = 356; g2 = (356/8)/16 − 3
    ['kurtosisPopulation', 356 / 8 / 16 - 3],
    ['kurtosis', (7 / (6 * 5)) * (9 * (356 / 8 / 16 - 3) + 6)],
  ] as const)('%s', (kind, expected) => {
    expect(measure(kind, eight)).toBeCloseTo(expected, 12);
  });

  it('percentile, trimmed and geometric mean', () => {
    expect(measure('percentile', [1, 2, 3, 4], 90)).toBeCloseTo(3.7, 12);
    expect(measure('trimmedMean', [0, 1, 2, 3, 100], 20)).toBe(2);
    expect(measure('trimmedMean', [1, 2], 50)).toBeNaN();
    expect(measure('geometricMean', [1, 10, 100])).toBeCloseTo(10, 12);
    expect(measure('geometricMean', [1, 0])).toBeNaN();
  });

  it('without a value: count 0, sum 0, all else none', () => {
    for (const kind of ['values', 'sum', 'distinct'] as const) expect(measure(kind, [NaN])).toBe(0);
    for (const kind of [
      'mean',
      'min',
      'max',
      'range',
      'median',
      'sd',
      'variance',
      'mode',
      'product',
      'iqr',
      'geometricMean',
      'skewness',
      'cv',
    ] as const)
      expect(measure(kind, [NaN])).toBeNaN();
  });

  it('sample forms need two, three, four values', () => {
    expect(measure('sd', [3])).toBeNaN();
    expect(measure('sdPopulation', [3])).toBe(0);
    expect(measure('skewness', [1, 2])).toBeNaN();
    expect(measure('skewness', [1, 2, 4])).not.toBeNaN();
    expect(measure('kurtosis', [1, 2, 4])).toBeNaN();
    expect(measure('kurtosis', [1, 2, 4, 9])).not.toBeNaN();
    expect(measure('cv', [-1, 1])).toBeNaN();
    expect(measure('skewness', [5, 5, 5, 5])).toBeNaN();
  });

  it('the mode is the smallest of several, and says how many', () => {
    expect(runsOf(Float64Array.from([1, 1, 2, 3, 3]))).toMatchObject({
      distinct: 3,
      value: 1,
      times: 2,
      ties: 2,
    });
  });

  it('has words for every percentile', () => {
    expect(
      [90, 1, 2, 3, 11, 12.5].map((percent) => measureWords({ kind: 'percentile', percent })),
    ).toEqual([
      '90th percentile',
      '1st percentile',
      '2nd percentile',
      '3rd percentile',
      '11th percentile',
      '12.5th percentile',
    ]);
  });
});

// NIST Statistical Reference Datasets, univariate summary statistics: data and certified values.
describe('NIST StRD', () => {
  const about = (base: number, low: number, high: number): number[] => [
    base,
    ...Array.from({ length: 1000 }, (_, i) => (i % 2 ? high : low)),
  ];
  it.each([
    ['NumAcc1', [10000001, 10000003, 10000002], 10000002, 1],
    ['NumAcc2', about(1.2, 1.1, 1.3), 1.2, 0.1],
    ['NumAcc3', about(1000000.2, 1000000.1, 1000000.3), 1000000.2, 0.1],
    ['NumAcc4', about(10000000.2, 10000000.1, 10000000.3), 10000000.2, 0.1],
  ] as const)('%s', (name, values, mean, sd) => {
    expect(measure('mean', values)).toBeCloseTo(mean, 8);
    // The data themselves are rounded to doubles: their last place bounds what any method can give.
    const places = { NumAcc1: 12, NumAcc2: 12, NumAcc3: 9, NumAcc4: 7 }[name];
    expect(measure('sd', values)).toBeCloseTo(sd, places);
  });
});

it('knows of every measure whether moments are enough for it', () => {
  const moments = momentsOf([1, 2, 4]);
  for (const kind of MEASURE_KINDS)
    expect([kind, isFromMoments(kind)]).toEqual([kind, fromMoments(kind, moments, 0) !== null]);
});

describe('properties', () => {
  const numbers = fc.array(
    fc.oneof(fc.double({ min: -1e9, max: 1e9, noNaN: true }), fc.constant(NaN)),
    { maxLength: 60 },
  );

  it('merging parts equals the whole', () => {
    fc.assert(
      fc.property(numbers, numbers, (a, b) => {
        const merged = finish(Moments.none(1, 'extremes'));
        merged.merge(0, momentsOf(a), 0);
        merged.merge(0, momentsOf(b), 0);
        const whole = momentsOf([...a, ...b]);
        const magnitude = [...a, ...b].reduce((s, v) => s + (Number.isNaN(v) ? 0 : Math.abs(v)), 0);
        expect(merged.count(0)).toBe(whole.count(0));
        expect(Math.abs(merged.sum(0) - whole.sum(0))).toBeLessThanOrEqual(
          whole.count(0) * 2 ** -52 * magnitude,
        );
        expect(merged.min(0)).toEqual(whole.min(0));
        expect(merged.max(0)).toEqual(whole.max(0));
        expect(Math.abs(merged.squares(0) - whole.squares(0))).toBeLessThanOrEqual(
          1e-9 * (whole.squares(0) + 1e-3) + 1e-11 * magnitude * magnitude,
        );
      }),
    );
  });

  it('the order of records never changes a sum beyond its bound', () => {
    fc.assert(
      fc.property(numbers, (values) => {
        const magnitude = values.reduce((s, v) => s + (Number.isNaN(v) ? 0 : Math.abs(v)), 0);
        const turned = [...values].reverse();
        expect(Math.abs(measure('sum', values) - measure('sum', turned))).toBeLessThanOrEqual(
          values.length * 2 ** -52 * magnitude,
        );
      }),
    );
  });

  it('sums of cents come out to the cent', () => {
    const cents = Array.from({ length: 100_000 }, (_, i) => (i % 997) / 100);
    const exact = Array.from({ length: 100_000 }, (_, i) => BigInt(i % 997)).reduce(
      (a, b) => a + b,
      0n,
    );
    expect(measure('sum', cents)).toBe(Number(exact) / 100);
    expect(measure('sum', [1e16, 1, -1e16])).toBe(1);
  });

  it('selecting gives what sorting gives (Hyndman and Fan’s definition 7)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ noNaN: true, min: -1e6, max: 1e6 }), { minLength: 1, maxLength: 900 }),
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 1, maxLength: 6 }),
        (values, shares) => {
          const ps = [...shares].sort((a, b) => a - b);
          const sorted = [...values].sort((a, b) => a - b);
          const expected = ps.map((p) => {
            const at = (sorted.length - 1) * p;
            const low = Math.floor(at);
            const next = sorted[Math.min(low + 1, sorted.length - 1)];
            return at === low ? sorted[low] : sorted[low] + (at - low) * (next - sorted[low]);
          });
          expect(quantiles(Float64Array.from(values), 0, values.length, ps)).toEqual(expected);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('a sum that only overflows on the way is there; one past all doubles is infinite', () => {
    const values = Float64Array.from([1e308, 1, 1e308, NaN, -1e308, -3, 1e308, 1e308]);
    const groups = Int32Array.from([0, 1, 0, 0, 0, 1, 2, 2]);
    for (const m of [
      finish(momentsOfGroups(values, groups, 3, all(8), true)),
      finish(sumsOfGroups(values, groups, 3, all(8))),
    ])
      expect([m.sum(0), m.sum(1), m.sum(2)]).toEqual([1e308, -2, Infinity]);
    const first = Int32Array.from([0, 2, 4]);
    const one = new Int32Array(8);
    expect(finish(momentsOfGroups(values, one, 1, first, false)).sum(0)).toBe(1e308);
    expect(finish(directTotal(values, first)).total).toBe(1e308);
    expect(finish(directTotal(values, Int32Array.from([6, 7]))).total).toBe(Infinity);
  });

  it('groups far apart lose no digits of their deviations', () => {
    const values = Float64Array.from(
      { length: 200 },
      (_, i) => (i < 100 ? 0 : 1e9) + (i % 10) / 10,
    );
    const groups = Int32Array.from({ length: 200 }, (_, i) => (i < 100 ? 0 : 1));
    const m = finish(momentsOfGroups(values, groups, 2, all(200), true));
    expect(m.squares(0)).toBeCloseTo(8.25, 10);
    expect(m.squares(1)).toBeCloseTo(8.25, 4);
  });
});

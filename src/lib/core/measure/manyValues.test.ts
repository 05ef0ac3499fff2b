import { describe, expect, it } from 'vitest';
import { finish } from '../task/task';
import { fromSlice, fromSlices } from './fromSlices';
import type { Measure } from './measure';

/** More values of one group than are worked through at one go. */
const N = 100_003;
/** Off any grid, with repeats, negative ones and one far off: the same at each run. */
const values = Float64Array.from({ length: N }, (_, k) => {
  const spread = Math.sin(k * 12.9898) * 43_758.5453;
  const share = spread - Math.floor(spread);
  return k === 77 ? 1e6 : k % 10 === 0 ? 3 : share * 100 - 20;
});
const positive = values.map((v) => Math.abs(v) + 0.5);

const many = (measure: Measure, of = values): number =>
  finish(fromSlices(measure, { values: of.slice(), start: Int32Array.of(0, of.length) }))[0];
const few = (measure: Measure, of = values): number => fromSlice(measure, of.slice(), 0, of.length);

/** The plain definitions, over values in order. */
const sorted = values.slice().sort();
const seven = (p: number, of = sorted): number => {
  const at = (of.length - 1) * p;
  const low = of[Math.floor(at)];
  return low + (at - Math.floor(at)) * (of[Math.ceil(at)] - low);
};
const average = (of: ArrayLike<number>): number =>
  Array.from(of).reduce((sum, v) => sum + v, 0) / of.length;
const mean = average(values);
const power = (k: number): number => average(values.map((v) => (v - mean) ** k));

describe('measures of very many values', () => {
  it.each<[string, Measure, number]>([
    ['the median', { kind: 'median' }, seven(0.5)],
    ['quartiles', { kind: 'lowerQuartile' }, seven(0.25)],
    ['the upper one', { kind: 'upperQuartile' }, seven(0.75)],
    ['the range between them', { kind: 'iqr' }, seven(0.75) - seven(0.25)],
    ['a percentile', { kind: 'percentile', percent: 99.5 }, seven(0.995)],
    ['the lowest as one', { kind: 'percentile', percent: 0 }, sorted[0]],
    ['the highest as one', { kind: 'percentile', percent: 100 }, 1e6],
    [
      'the mean distance from the median',
      { kind: 'medianDeviation' },
      average(values.map((v) => Math.abs(v - seven(0.5)))),
    ],
    [
      'the mean distance from the mean',
      { kind: 'meanDeviation' },
      average(values.map((v) => Math.abs(v - mean))),
    ],
    ['the skewness of a population', { kind: 'skewnessPopulation' }, power(3) / power(2) ** 1.5],
    ['its kurtosis', { kind: 'kurtosisPopulation' }, power(4) / power(2) ** 2 - 3],
    [
      'a trimmed mean',
      { kind: 'trimmedMean', percent: 10 },
      average(sorted.slice(10_000, -10_000)),
    ],
    ['the mode', { kind: 'mode' }, 3],
    ['how many share it', { kind: 'modeTies' }, 1],
    ['distinct ones', { kind: 'distinct' }, new Set(values).size],
  ])('%s by its definition', (_, measure, expected) => {
    const found = many(measure);
    expect(found / expected).toBeCloseTo(1, 9);
    // Small groups are measured at one go, by the other of the two ways.
    expect(found / few(measure)).toBeCloseTo(1, 9);
  });

  it('quantiles by other definitions', () => {
    // Definition 1 of Hyndman and Fan: the ordered value at the next whole place.
    const first: Measure = { kind: 'percentile', percent: 40, definition: 1 };
    expect(many(first)).toBe(sorted[Math.ceil(N * 0.4) - 1]);
    expect(many({ kind: 'iqr', definition: 6 })).toBe(few({ kind: 'iqr', definition: 6 }));
  });

  it('products and geometric means, where there are some', () => {
    const logs = average(positive.map(Math.log));
    expect(many({ kind: 'geometricMean' }, positive) / Math.exp(logs)).toBeCloseTo(1, 9);
    expect(many({ kind: 'geometricMean' })).toBeNaN();
    const halves = new Float64Array(40_000).fill(1);
    halves[39_999] = 7;
    expect(many({ kind: 'product' }, halves)).toBe(7);
  });

  it('pauses within a group that is large, and takes the others between', () => {
    const start = Int32Array.of(0, 10, N, N);
    const steps = fromSlices({ kind: 'median' }, { values: values.slice(), start });
    let pauses = 0;
    let found = new Float64Array(0);
    for (;;) {
      const step = steps.next();
      if (step.done) {
        found = Float64Array.from(step.value);
        break;
      }
      pauses++;
    }
    expect(pauses).toBeGreaterThan(5);
    expect(found[0]).toBe(seven(0.5, values.slice(0, 10).sort()));
    expect(found[1]).toBeCloseTo(seven(0.5, values.slice(10).sort()), 12);
    expect(found[2]).toBeNaN();
  });
});

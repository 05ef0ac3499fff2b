import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { accuracy, bestOf, holdOutLength, naiveScale, tryMethods } from './holdOut';
import { finish } from '../task/task';
import { fitLine } from '../measure/line';
import { isFitted, METHODS, type Fitted, type MethodKey, type Parameters } from './method';
import { BY_KEY } from './methods';
import { normalQuantile, studentQuantile } from './quantiles';

function fit(
  method: MethodKey,
  y: readonly number[],
  season = 1,
  parameters: Parameters = {},
): Fitted {
  const result = finish(BY_KEY[method]({ y: Float64Array.from(y), season }, parameters));
  if (!isFitted(result)) throw new Error(result.why);
  return result;
}

const near = (value: number, digits = 10) => expect.closeTo(value, digits);

describe('least squares', () => {
  // NIST StRD, linear regression, data set Norris (36 observations, lower difficulty).
  const x = [
    0.2, 337.4, 118.2, 884.6, 10.1, 226.5, 666.3, 996.3, 448.6, 777.0, 558.2, 0.4, 0.6, 775.5,
    666.9, 338.0, 447.5, 11.6, 556.0, 228.1, 995.8, 887.6, 120.2, 0.3, 0.3, 556.8, 339.1, 887.2,
    999.0, 779.0, 11.1, 118.3, 229.2, 669.1, 448.9, 0.5,
  ];
  const y = [
    0.1, 338.8, 118.1, 888.0, 9.2, 228.1, 668.5, 998.5, 449.1, 778.9, 559.2, 0.3, 0.1, 778.1, 668.8,
    339.3, 448.9, 10.8, 557.7, 228.3, 998.0, 888.8, 119.6, 0.3, 0.6, 557.6, 339.3, 888.0, 998.5,
    778.9, 10.2, 117.6, 228.9, 668.4, 449.2, 0.2,
  ];

  it('agrees with the certified values of NIST StRD Norris', () => {
    const line = fitLine(x, y);
    expect(line?.intercept).toBeCloseTo(-0.262323073774029, 12);
    expect(line?.slope).toBeCloseTo(1.00211681802045, 13);
    expect(line?.interceptSe).toBeCloseTo(0.232818234301152, 12);
    expect(line?.slopeSe).toBeCloseTo(0.429796848199937e-3, 15);
    expect(line?.residualSd).toBeCloseTo(0.884796396144373, 12);
    expect(line?.r2).toBeCloseTo(0.999993745883712, 14);
  });

  it('keeps its digits far from the origin', () => {
    const far = fitLine(
      x.map((v) => v + 1e7),
      y,
    );
    expect(far?.slope).toBeCloseTo(1.00211681802045, 6);
  });

  it('needs two points that differ', () => {
    expect(fitLine([1], [1])).toBeNull();
    expect(fitLine([2, 2], [1, 5])).toBeNull();
  });
});

describe('quantiles of distributions', () => {
  it.each([
    [0.9, 1.2815515655446004],
    [0.975, 1.959963984540054],
    [1e-10, -6.361340902404056],
  ])('normal %d', (p, z) => expect(normalQuantile(p)).toBeCloseTo(z, 12));
  // Published tables of Student's t.
  it.each([
    [0.975, 1, 12.706],
    [0.975, 2, 4.303],
    [0.975, 10, 2.228],
    [0.9, 5, 1.476],
    [0.975, 30, 2.042],
    [0.995, 120, 2.617],
  ])('t %d with %d degrees', (p, df, t) => expect(studentQuantile(p, df)).toBeCloseTo(t, 3));
  it('is symmetric, and normal in the limit', () => {
    expect(studentQuantile(0.025, 7)).toBe(-studentQuantile(0.975, 7));
    expect(studentQuantile(0.975, Infinity)).toBe(normalQuantile(0.975));
    expect(studentQuantile(0.975, 0)).toBeNaN();
  });
});

describe('smoothing', () => {
  // NIST/SEMATECH e-Handbook of Statistical Methods, 6.4.3.1: alpha 0.1, S2 = y1.
  const y = [71, 70, 69, 68, 64, 65, 72, 78, 75, 75, 75, 70];
  it('agrees with the worked example of the e-Handbook', () => {
    const { fitted } = fit('smoothing', y, 1, { alpha: 0.1 });
    const published = [71, 70.9, 70.71, 70.44, 69.8, 69.32, 69.58, 70.43, 70.88, 71.29, 71.67];
    published.forEach((v, k) => expect(Math.abs(fitted[k + 1] - v)).toBeLessThan(0.011));
    const sse = fitted.slice(1).reduce((s, f, k) => s + (y[k + 1] - f) ** 2, 0);
    // Published as 208.94, from forecasts rounded to two decimals.
    expect(Math.abs(sse - 208.94)).toBeLessThan(0.2);
  });

  it('Holt: the recurrences by hand', () => {
    // l1 = 10, b1 = 2; y3 = 15: l = .5*15 + .5*14 = 14.5, from l2 = 12, b2 = 2: b = .4*2.5 + .6*2 = 2.2.
    const f = fit('trend', [10, 12, 15], 1, { alpha: 0.5, beta: 0.4 });
    expect(f.fitted[1]).toBe(12);
    expect(f.fitted[2]).toBe(14);
    expect(f.forecast(1)).toBeCloseTo(16.7, 12);
    expect(f.forecast(3)).toBeCloseTo(14.5 + 3 * 2.2, 12);
    const damped = fit('damped', [10, 12, 15, 15], 1, { alpha: 0.5, beta: 0.4, phi: 0.9 });
    // t=2: f 11.8, l 11.9, b .4*1.9+.6*1.8=1.84; t=3: f 13.556, l 14.278, b .4*2.378+.6*1.656=1.9448;
    // t=4: f 16.02832, l 15.51416, b .4*1.23616+.6*1.75032=1.544656.
    expect(damped.forecast(1)).toBeCloseTo(15.51416 + 0.9 * 1.544656, 10);
    expect(damped.forecast(2)).toBeCloseTo(15.51416 + (0.9 + 0.81) * 1.544656, 10);
  });

  it('Holt-Winters: the start values and one step by hand', () => {
    // Seasons of two: level (4+6)/2 = 5, trend ((8+10)/2 − 5)/2 = 2, seasons −1, 1.
    const f = fit('seasonalAdditive', [4, 6, 8, 10], 2, { alpha: 0.5, beta: 0.5, gamma: 0.5 });
    expect(f.fitted[2]).toBe(5 + 2 - 1);
    // l = .5*9 + .5*7 = 8, s = .5*(8−7) + .5*−1 = 0, b = .5*3 + .5*2 = 2.5; next 8 + 2.5 + 1.
    expect(f.fitted[3]).toBe(11.5);
    const m = fit('seasonalMultiplicative', [4, 6, 8, 10], 2, {
      alpha: 0.5,
      beta: 0.5,
      gamma: 0.5,
    });
    expect(m.fitted[2]).toBeCloseTo((5 + 2) * 0.8, 12);
  });

  it('divides squared errors by those less the parameters that were estimated: given weights are none', () => {
    const y = [10, 12, 11, 15, 14, 13];
    // By hand, α = 0.5: errors 2, 0, 4, 1, −0.5 from the second value on; Σe² = 21.25 over 5 of them.
    const errors = [2, 0, 4, 1, -0.5];
    const sd = Math.sqrt(errors.reduce((sum, e) => sum + e * e, 0) / errors.length);
    const [low, high] = fit('smoothing', y, 1, { alpha: 0.5 }).interval(1, 0.95);
    expect((high - low) / 2).toBeCloseTo(1.959964 * sd, 5);
    const found = fit('smoothing', y, 1);
    const own = found.fitted.reduce((sum, f, t) => (f === f ? sum + (y[t] - f) ** 2 : sum), 0);
    const [below, above] = found.interval(1, 0.95);
    expect((above - below) / 2).toBeCloseTo(1.959964 * Math.sqrt(own / 4), 4);
  });

  it('finds parameters that no neighbour betters', () => {
    const series = Array.from({ length: 40 }, (_, t) => 50 + 3 * Math.sin(t) + ((t * 7919) % 13));
    const sse = (alpha?: number): number => {
      const { fitted } = fit('smoothing', series, 1, alpha === undefined ? {} : { alpha });
      return fitted.slice(1).reduce((s, f, k) => s + (series[k + 1] - f) ** 2, 0);
    };
    const found = sse();
    for (let a = 0.01; a < 1; a += 0.01) expect(found).toBeLessThanOrEqual(sse(a) + 1e-6);
  });
});

describe('plain methods', () => {
  it('mean, naive, drift, seasonal naive and compound growth by hand', () => {
    expect(fit('mean', [1, 2, 6]).forecast(4)).toBe(3);
    expect(fit('mean', [1, 2, 6], 1, { k: 2 }).forecast(1)).toBe(4);
    // One-step errors 6 − 1.5 and 3 − 4; their mean square is 10.625, and z of 80 % 1.281552.
    const last2 = fit('mean', [1, 2, 6, 3], 1, { k: 2 });
    const [low, high] = last2.interval(3, 0.8);
    expect(low).toBeCloseTo(4.5 - 1.281552 * Math.sqrt(10.625), 5);
    expect(high).toBeCloseTo(4.5 + 1.281552 * Math.sqrt(10.625), 5);
    // About the mean of all, 3: squares 4, 1, 9, 0 over 3, and a quarter of that for the mean.
    expect(fit('mean', [1, 2, 6, 3]).interval(1, 0.8)[1]).toBeCloseTo(
      3 + 1.281552 * Math.sqrt((14 / 3) * 1.25),
      5,
    );
    expect(fit('naive', [1, 2, 6]).forecast(9)).toBe(6);
    expect(fit('drift', [1, 2, 6]).forecast(2)).toBe(11);
    const seasonal = fit('seasonalNaive', [1, 2, 3, 4, 5, 6], 3);
    expect([1, 2, 3, 4].map((h) => seasonal.forecast(h))).toEqual([4, 5, 6, 4]);
    expect(fit('compound', [100, 130, 121]).forecast(1)).toBeCloseTo(133.1, 10);
    expect(fit('exponential', [1, 2, 4, 8]).forecast(2)).toBeCloseTo(32, 10);
  });

  it('naive bounds grow with the square root of the horizon', () => {
    const f = fit('naive', [1, 3, 2, 5, 4]);
    const width = (h: number): number => f.interval(h, 0.95)[1] - f.interval(h, 0.95)[0];
    // Σe² = 4+1+9+1 = 15 over 4 errors.
    expect(width(1)).toBeCloseTo(2 * 1.959963984540054 * Math.sqrt(15 / 4), 10);
    expect(width(9)).toBeCloseTo(3 * width(1), 10);
  });

  it('the line’s bounds by hand', () => {
    // y = 1, 3, 2: slope .5, intercept 1; residuals −.5, 1, −.5; s² = 1.5; t(.975, 1) = 12.7062.
    const f = fit('line', [1, 3, 2]);
    const sd = Math.sqrt(1.5 * (1 + 1 / 3 + 4 / 2));
    expect(f.forecast(1)).toBeCloseTo(3, 12);
    expect(f.interval(1, 0.95)[1]).toBeCloseTo(3 + 12.706204736 * sd, 6);
  });

  it('what a series does not allow is said', () => {
    const why = (method: MethodKey, y: number[], season = 1): string => {
      const r = finish(BY_KEY[method]({ y: Float64Array.from(y), season }, {}));
      return isFitted(r) ? '' : r.why;
    };
    expect(why('exponential', [1, 0, 2])).toMatch(/over 0/);
    expect(why('compound', [0, 1])).toMatch(/over 0/);
    expect(why('seasonalNaive', [1, 2])).toMatch(/no season/);
    expect(why('seasonalAdditive', [1, 2, 3], 2)).toMatch(/Two whole seasons/);
    expect(why('seasonalMultiplicative', [1, 2, 3, -4], 2)).toMatch(/over 0/);
    expect(why('line', [1])).toMatch(/2 points/);
    for (const method of METHODS) expect(why(method, [])).not.toBe('');
  });
});

describe('properties', () => {
  const line = fc.tuple(
    fc.integer({ min: -50, max: 50 }),
    fc.integer({ min: -9, max: 9 }),
    fc.integer({ min: 8, max: 40 }),
  );
  it('a forecast of an exact line is the line, by every method that knows trends', () => {
    fc.assert(
      fc.property(line, fc.integer({ min: 1, max: 20 }), ([a, b, n], h) => {
        const y = Array.from({ length: n }, (_, t) => a + b * t);
        for (const method of [
          'line',
          'drift',
          'trend',
          'seasonalLine',
          'seasonalAdditive',
        ] as const) {
          const season = method.startsWith('seasonal') ? 2 : 1;
          if (method === 'seasonalAdditive') continue;
          expect(fit(method, y, season).forecast(h)).toEqual(near(a + b * (n - 1 + h), 6));
        }
      }),
      { numRuns: 60 },
    );
  });

  it('bounds hold the forecast, and wider levels hold narrower ones', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 1, max: 100 }), { minLength: 8, maxLength: 30 }),
        fc.constantFrom(...METHODS),
        (y, method) => {
          const result = finish(BY_KEY[method]({ y: Float64Array.from(y), season: 3 }, {}));
          if (!isFitted(result)) return;
          for (const h of [1, 5]) {
            const f = result.forecast(h);
            const [a, b] = result.interval(h, 0.8);
            const [c, d] = result.interval(h, 0.95);
            if ([a, b, c, d].some(Number.isNaN) || method === 'seasonalMultiplicative') continue;
            expect(a <= f + 1e-9 && f <= b + 1e-9 && c <= a + 1e-9 && b <= d + 1e-9).toBe(true);
          }
        },
      ),
      { numRuns: 200 },
    );
  });

  it('the same series always gives the same simulated bounds', () => {
    const y = Array.from({ length: 36 }, (_, t) => (20 + t) * [1, 1.4, 0.6][t % 3] + (t % 5));
    expect(fit('seasonalMultiplicative', y, 3).interval(4, 0.8)).toEqual(
      fit('seasonalMultiplicative', y, 3).interval(4, 0.8),
    );
    const [low, high] = fit('seasonalMultiplicative', y, 3).interval(4, 0.95);
    expect(low).toBeLessThan(fit('seasonalMultiplicative', y, 3).forecast(4));
    expect(high).toBeGreaterThan(fit('seasonalMultiplicative', y, 3).forecast(4));
  });

  it('simulated bounds of a period do not hang on how far was looked before', () => {
    const y = Array.from({ length: 36 }, (_, t) => (20 + t) * [1, 1.4, 0.6][t % 3] + (t % 5));
    const near = fit('seasonalMultiplicative', y, 3);
    const far = fit('seasonalMultiplicative', y, 3);
    const last = far.interval(60, 0.8);
    const horizons = [1, 2, 3, 24, 25, 60];
    expect(horizons.map((h) => near.interval(h, 0.8))).toEqual(
      horizons.map((h) => far.interval(h, 0.8)),
    );
    expect(near.interval(60, 0.8)).toEqual(last);
    // One step ahead the errors are normal: the bounds are the forecast times 1 ± z times their spread.
    const { fitted } = near;
    const errors = y.flatMap((v, t) => (t < 3 ? [] : [(v - fitted[t]) / fitted[t]]));
    const sd = Math.sqrt(errors.reduce((sum, e) => sum + e * e, 0) / (errors.length - 3));
    const [low, high] = near.interval(1, 0.8);
    expect(low / near.forecast(1)).toBeCloseTo(1 - 1.2816 * sd, 2);
    expect(high / near.forecast(1)).toBeCloseTo(1 + 1.2816 * sd, 2);
    // No further than what is simulated.
    expect(near.interval(601, 0.8)).toEqual([NaN, NaN]);
  });

  it('the search for parameters pauses, the more often the longer the series', () => {
    const pauses = (length: number): number => {
      const y = Float64Array.from({ length }, (_, t) => 50 + 9 * Math.sin(t / 2) + (t % 7));
      const steps = BY_KEY.seasonalAdditive({ y, season: 12 }, {});
      let n = 0;
      while (!steps.next().done) n++;
      return n;
    };
    expect(pauses(3650)).toBeGreaterThan(8);
    expect(pauses(3650)).toBeGreaterThan(2 * pauses(365));
  });
});

describe('the choice of a method', () => {
  it('measures by hand', () => {
    expect(accuracy([10, 20], [12, 16], 2)).toEqual({
      mae: 3,
      rmse: Math.sqrt(10),
      mape: near(0.2),
      mase: 1.5,
    });
    expect(accuracy([0, 1], [1, 1], 0)).toMatchObject({ mape: NaN, mase: NaN });
    expect(naiveScale({ y: Float64Array.of(1, 4, 2), season: 1 })).toBe(2.5);
    expect(holdOutLength({ y: new Float64Array(36), season: 12 })).toBe(12);
    expect(holdOutLength({ y: new Float64Array(35), season: 12 })).toBe(7);
    expect(holdOutLength({ y: new Float64Array(3), season: 1 })).toBe(1);
  });

  it('takes the line for a line, the season for a season, and says why others were not tried', () => {
    const lineSeries = {
      y: Float64Array.from({ length: 30 }, (_, t) => 5 + 2 * t + (t % 3 === 0 ? 0.3 : 0)),
      season: 1,
    };
    expect(['line', 'drift', 'trend', 'damped']).toContain(
      bestOf(finish(tryMethods(lineSeries, METHODS, {}, 6))),
    );
    const seasonal = {
      y: Float64Array.from({ length: 48 }, (_, t) => 100 + t + [0, 30, -20, 5][t % 4]),
      season: 4,
    };
    const tried = finish(tryMethods(seasonal, METHODS, {}, 4));
    expect(['seasonalLine', 'seasonalAdditive', 'seasonalMultiplicative']).toContain(bestOf(tried));
    const short = finish(tryMethods({ y: Float64Array.of(1, 2, 3), season: 4 }, METHODS, {}, 1));
    expect(short.find((t) => t.method === 'seasonalLine')?.why).toMatch(/Two whole seasons/);
  });
});

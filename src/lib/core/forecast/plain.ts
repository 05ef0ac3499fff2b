import { fitLine, lineAt, predictionSd } from '../measure/line';
import { errorVariance, type Fitted, type PlainMethod } from './method';
import { normalQuantile, studentQuantile } from './quantiles';

/**
 * Methods without smoothing. Intervals: Student t for lines, with their own and the line's variance;
 * for the others normal, with the growth of variance by horizon that the model implies (Hyndman and
 * Athanasopoulos, Forecasting: Principles and Practice, 3rd ed., 5.5).
 */

const steps = (n: number): Float64Array => Float64Array.from({ length: n }, (_, t) => t + 1);

/** Bounds ± z · √variance(h). */
export const normalBounds =
  (forecast: (h: number) => number, variance: (h: number) => number): Fitted['interval'] =>
  (h, level) => {
    const reach = normalQuantile((1 + level) / 2) * Math.sqrt(variance(h));
    return [forecast(h) - reach, forecast(h) + reach];
  };

export const line: PlainMethod = ({ y }) => {
  const n = y.length;
  const fit = fitLine(steps(n), y);
  if (!fit) return { why: 'A line needs at least 2 points.' };
  const forecast = (h: number): number => lineAt(fit, n + h);
  return {
    fitted: y.map((_, t) => lineAt(fit, t + 1)),
    parameters: {},
    terms: [
      { name: 'intercept', value: fit.intercept },
      { name: 'slope', value: fit.slope },
    ],
    forecast,
    interval(h, level) {
      const reach = studentQuantile((1 + level) / 2, n - 2) * predictionSd(fit, n + h);
      return [forecast(h) - reach, forecast(h) + reach];
    },
  };
};

const positive = (y: Float64Array): boolean => y.every((v) => v > 0);

/** The line on ln y, and its intervals, turned back by exp. */
export const exponential: PlainMethod = (series, parameters) => {
  if (!positive(series.y)) return { why: 'An exponential trend needs every value over 0.' };
  const logs = line({ ...series, y: series.y.map(Math.log) }, parameters);
  if (!('forecast' in logs)) return logs;
  return {
    fitted: logs.fitted.map(Math.exp),
    parameters: {},
    terms: logs.terms.map(({ name, value }) => ({
      name: name === 'slope' ? 'logSlope' : 'logIntercept',
      value,
    })),
    forecast: (h) => Math.exp(logs.forecast(h)),
    interval(h, level) {
      const [low, high] = logs.interval(h, level);
      return [Math.exp(low), Math.exp(high)];
    },
  };
};

/** From the last value at the rate that leads from the first to the last; variance as for drift, on ln y. */
export const compound: PlainMethod = (series, parameters) => {
  const { y } = series;
  const n = y.length;
  if (n < 2) return { why: 'Growth needs at least 2 points.' };
  if (!(y[0] > 0 && y[n - 1] > 0))
    return { why: 'Compound growth needs the first and the last value over 0.' };
  const rate = (y[n - 1] / y[0]) ** (1 / (n - 1));
  const logs = positive(y) ? drift({ ...series, y: y.map(Math.log) }, parameters) : null;
  return {
    fitted: y.map((_, t) => (t === 0 ? NaN : y[t - 1] * rate)),
    parameters: {},
    terms: [
      { name: 'level', value: y[n - 1] },
      { name: 'rate', value: rate - 1 },
    ],
    forecast: (h) => y[n - 1] * rate ** h,
    interval(h, level) {
      if (!logs || !('forecast' in logs)) return [NaN, NaN];
      const [low, high] = logs.interval(h, level);
      return [Math.exp(low), Math.exp(high)];
    },
  };
};

/** Each value from the mean of the k before it (of all, unless k is given). */
export const mean: PlainMethod = ({ y }, { k: given }) => {
  const n = y.length;
  if (n === 0) return { why: 'There is no value.' };
  const k = Math.min(given ?? n, n);
  const average = (from: number, to: number): number => {
    let sum = 0;
    for (let t = from; t < to; t++) sum += y[t];
    return sum / (to - from);
  };
  const level = average(n - k, n);
  // With k given, forecasts begin once k values are there; without, each stands on all before it.
  const begin = given === undefined ? 1 : k;
  const fitted = y.map((_, t) => (t < begin ? NaN : average(given === undefined ? 0 : t - k, t)));
  // Without k the errors are those about the mean itself, which is as uncertain as 1/n of them; the
  // one-step errors of k values have that of their mean in them already.
  const ofMean = given === undefined ? 1 / n : 0;
  const variance =
    given === undefined
      ? errorVariance(
          y,
          y.map(() => level),
          1,
        )
      : errorVariance(y, fitted, 0);
  return {
    fitted,
    parameters: { k },
    terms: [{ name: 'level', value: level }],
    forecast: () => level,
    interval: normalBounds(
      () => level,
      () => variance * (1 + ofMean),
    ),
  };
};

export const naive: PlainMethod = ({ y }) => {
  const n = y.length;
  if (n === 0) return { why: 'There is no value.' };
  const fitted = y.map((_, t) => (t === 0 ? NaN : y[t - 1]));
  const variance = errorVariance(y, fitted, 0);
  const forecast = (): number => y[n - 1];
  return {
    fitted,
    parameters: {},
    terms: [{ name: 'level', value: y[n - 1] }],
    forecast,
    interval: normalBounds(forecast, (h) => variance * h),
  };
};

export const drift: PlainMethod = ({ y }) => {
  const n = y.length;
  if (n < 2) return { why: 'Drift needs at least 2 points.' };
  const slope = (y[n - 1] - y[0]) / (n - 1);
  const fitted = y.map((_, t) => (t === 0 ? NaN : y[t - 1] + slope));
  const variance = errorVariance(y, fitted, 1);
  const forecast = (h: number): number => y[n - 1] + h * slope;
  return {
    fitted,
    parameters: {},
    terms: [
      { name: 'level', value: y[n - 1] },
      { name: 'change', value: slope },
    ],
    forecast,
    interval: normalBounds(forecast, (h) => variance * h * (1 + h / (n - 1))),
  };
};

export const seasonalNaive: PlainMethod = ({ y, season: m }) => {
  const n = y.length;
  if (m < 2) return { why: 'The periods have no season.' };
  if (n < m) return { why: `A whole season of ${m} points is needed.` };
  const fitted = y.map((_, t) => (t < m ? NaN : y[t - m]));
  const variance = errorVariance(y, fitted, 0);
  const forecast = (h: number): number => y[n - m + ((h - 1) % m)];
  return {
    fitted,
    parameters: {},
    terms: Array.from({ length: m }, (_, k) => ({
      name: 'season' as const,
      value: forecast(k + 1),
      ahead: k + 1,
    })),
    forecast,
    interval: normalBounds(forecast, (h) => variance * (Math.floor((h - 1) / m) + 1)),
  };
};

const average = (values: readonly number[]): number =>
  values.reduce((sum, v) => sum + v, 0) / values.length;

/**
 * A line and an index for each season, together by least squares: the residuals of y and of t from
 * their seasons' means give the slope (Frisch and Waugh 1933).
 */
export const seasonalLine: PlainMethod = ({ y, season: m }) => {
  const n = y.length;
  if (m < 2) return { why: 'The periods have no season.' };
  if (n < 2 * m) return { why: `Two whole seasons of ${m} points are needed.` };
  const meanY = new Float64Array(m);
  const meanT = new Float64Array(m);
  const count = new Float64Array(m);
  y.forEach((v, t) => {
    meanY[t % m] += v;
    meanT[t % m] += t;
    count[t % m]++;
  });
  for (let s = 0; s < m; s++) {
    meanY[s] /= count[s];
    meanT[s] /= count[s];
  }
  let stt = 0;
  let sty = 0;
  y.forEach((v, t) => {
    const d = t - meanT[t % m];
    stt += d * d;
    sty += d * (v - meanY[t % m]);
  });
  const slope = sty / stt;
  const at = (t: number): number => meanY[t % m] + slope * (t - meanT[t % m]);
  const fitted = y.map((_, t) => at(t));
  const df = n - m - 1;
  const variance = df > 0 ? errorVariance(y, fitted, m + 1) : NaN;
  // Seasons as what they add to the line through all: their indices add up to 0 over the seasons.
  const base = average(Array.from({ length: m }, (_, s) => meanY[s] - slope * meanT[s]));
  return {
    fitted,
    parameters: {},
    terms: [
      { name: 'level', value: base + slope * (n - 1) },
      { name: 'slope', value: slope },
      ...Array.from({ length: m }, (_, k) => {
        const s = (n + k) % m;
        return {
          name: 'season' as const,
          value: meanY[s] - slope * meanT[s] - base,
          ahead: k + 1,
        };
      }),
    ],
    forecast: (h) => at(n - 1 + h),
    interval(h, level) {
      const t = n - 1 + h;
      const s = t % m;
      const sd = Math.sqrt(variance * (1 + 1 / count[s] + (t - meanT[s]) ** 2 / stt));
      const reach = studentQuantile((1 + level) / 2, df) * sd;
      return [at(t) - reach, at(t) + reach];
    },
  };
};

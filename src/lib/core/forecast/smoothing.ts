import {
  errorVariance,
  type Fitted,
  type Method,
  type Parameters,
  type SeasonBy,
  type Series,
  type Term,
} from './method';
import type { Task } from '../task/task';
import { normalBounds } from './plain';
import { normalQuantile } from './quantiles';
import { least } from './search';

/**
 * Exponential smoothing in its component form (Hyndman and Athanasopoulos, Forecasting: Principles
 * and Practice, 3rd ed., 8.1-8.3), with the start values of our calculations: level y1; trend
 * y2 − y1; for seasons the first season's mean, the difference of the first two seasons' means ÷ m,
 * and what is left of the first season. Variances by horizon: the same, table 8.8 (class 1).
 */

interface State {
  readonly fitted: Float64Array;
  readonly level: number;
  readonly trend: number;
  /** Seasonal parts, by place in the season of the first point. */
  readonly seasons: Float64Array;
  readonly sse: number;
}

/** The same behind the last point. */
interface EndState extends Omit<State, 'seasons'> {
  /** Seasonal parts of the next periods. */
  readonly seasons: readonly number[];
}

type Kind = 'smoothing' | 'trend' | 'damped' | 'seasonalAdditive' | 'seasonalMultiplicative';

interface Full {
  alpha: number;
  beta: number;
  gamma: number;
  phi: number;
  seasonBy: SeasonBy;
}

/** What a value is divided by for its season: the level and trend before it, or the level it made. */
const seasonBase = ({ seasonBy }: Full, before: number, now: number): number =>
  seasonBy === 'levelNow' ? now : before;

type Weight = Exclude<keyof Full, 'seasonBy'>;

const NAMES: Record<Kind, readonly Weight[]> = {
  smoothing: ['alpha'],
  trend: ['alpha', 'beta'],
  damped: ['alpha', 'beta', 'phi'],
  seasonalAdditive: ['alpha', 'beta', 'gamma'],
  seasonalMultiplicative: ['alpha', 'beta', 'gamma'],
};

const BOUNDS: Record<Weight, readonly [number, number]> = {
  alpha: [0.0001, 0.9999],
  beta: [0.0001, 0.9999],
  gamma: [0.0001, 0.9999],
  phi: [0.8, 0.98],
};

/**
 * Runs the recurrences once through the series. The search for parameters runs them some thousands
 * of times: it hands in what they write to.
 */
function run(
  kind: Kind,
  { y, season: m }: Series,
  full: Full,
  fitted = new Float64Array(y.length).fill(NaN),
  seasons: Float64Array = new Float64Array(m),
): State {
  const { alpha, beta, gamma, phi } = full;
  const n = y.length;
  let sse = 0;
  if (kind === 'seasonalAdditive' || kind === 'seasonalMultiplicative') {
    const times = kind === 'seasonalMultiplicative';
    let level = average(y, 0, m);
    let trend = (average(y, m, 2 * m) - level) / m;
    for (let i = 0; i < m; i++) seasons[i] = times ? y[i] / level : y[i] - level;
    for (let t = m; t < n; t++) {
      const s = seasons[t % m];
      const f = times ? (level + trend) * s : level + trend + s;
      fitted[t] = f;
      sse += (y[t] - f) ** 2;
      const before = level;
      level = alpha * (times ? y[t] / s : y[t] - s) + (1 - alpha) * (level + trend);
      seasons[t % m] =
        gamma * (times ? y[t] / seasonBase(full, before + trend, level) : y[t] - before - trend) +
        (1 - gamma) * s;
      trend = beta * (level - before) + (1 - beta) * trend;
    }
    return {
      fitted,
      level,
      trend,
      seasons,
      sse,
    };
  }
  let level = y[0];
  let trend = kind === 'smoothing' ? 0 : y[1] - y[0];
  for (let t = 1; t < n; t++) {
    const f = level + phi * trend;
    fitted[t] = f;
    sse += (y[t] - f) ** 2;
    const before = level;
    level = alpha * y[t] + (1 - alpha) * f;
    if (kind !== 'smoothing') trend = beta * (level - before) + (1 - beta) * phi * trend;
  }
  return { fitted, level, trend, seasons: NO_SEASONS, sse };
}

const NO_SEASONS = new Float64Array(0);

/** Seasons in the order in which they come next. */
const comingSeasons = (seasons: Float64Array, { y }: Series): number[] =>
  Array.from(seasons, (_, i) => seasons[(y.length + i) % seasons.length]);

function average(y: Float64Array, from: number, to: number): number {
  let sum = 0;
  for (let t = from; t < to; t++) sum += y[t];
  return sum / (to - from);
}

/** Parameters as given, the rest found by least squared one-step error. */
function* settle(kind: Kind, series: Series, given: Parameters): Task<Full> {
  const full = (x: readonly number[], open: readonly Weight[]): Full => {
    const seasonBy = given.seasonBy ?? 'levelBefore';
    const out: Full = { alpha: 0, beta: 0, gamma: 0, phi: 1, seasonBy };
    for (const name of NAMES[kind]) out[name] = given[name] ?? x[open.indexOf(name)];
    return out;
  };
  const open = NAMES[kind].filter((name) => given[name] === undefined);
  const fitted = new Float64Array(series.y.length);
  const seasons = new Float64Array(series.season);
  const x = yield* least(
    (values) => run(kind, series, full(values, open), fitted, seasons).sse,
    open.map((name) => BOUNDS[name]),
    series.y.length,
  );
  return full(x, open);
}

const smooth = (kind: Kind, allowed: (series: Series) => string | null): Method =>
  function* (series, given) {
    const why = allowed(series);
    if (why !== null) return { why };
    const full = yield* settle(kind, series, given);
    // Weights that were given took nothing from the errors (Hyndman and Athanasopoulos, 3rd ed., 5.5).
    const estimated = NAMES[kind].filter((name) => given[name] === undefined).length;
    const ran = run(kind, series, full);
    const state: EndState = { ...ran, seasons: comingSeasons(ran.seasons, series) };
    const parameters: Parameters = {
      ...Object.fromEntries(NAMES[kind].map((name) => [name, full[name]])),
      ...(kind === 'seasonalMultiplicative' && { seasonBy: full.seasonBy }),
    };
    const terms = termsOf(kind, state);
    const forecast = (h: number): number => forecastOf(kind, state, full.phi, h);
    if (kind === 'seasonalMultiplicative')
      return {
        fitted: state.fitted,
        parameters,
        terms,
        forecast,
        interval: simulated(series, state, full, estimated),
      };
    const variance = errorVariance(series.y, state.fitted, estimated);
    return {
      fitted: state.fitted,
      parameters,
      terms,
      forecast,
      interval: normalBounds(forecast, (h) => variance * growth(kind, full, series.season, h)),
    };
  };

const termsOf = (kind: Kind, { level, trend, seasons }: EndState): Term[] => [
  { name: 'level', value: level },
  ...(kind === 'smoothing' ? [] : [{ name: 'trend' as const, value: trend }]),
  ...seasons.map((value, k) => ({ name: 'season' as const, value, ahead: k + 1 })),
];

function forecastOf(
  kind: Kind,
  { level, trend, seasons }: EndState,
  phi: number,
  h: number,
): number {
  const damping = phi === 1 ? h : (phi * (1 - phi ** h)) / (1 - phi);
  const base = level + damping * trend;
  if (seasons.length === 0) return base;
  const s = seasons[(h - 1) % seasons.length];
  return kind === 'seasonalMultiplicative' ? base * s : base + s;
}

/** How many times the one-step variance that of horizon h is. */
function growth(
  kind: Kind,
  { alpha, beta: star, gamma: g, phi }: Full,
  m: number,
  h: number,
): number {
  const beta = alpha * star;
  const linear = (h - 1) * (alpha ** 2 + alpha * beta * h + (beta ** 2 * h * (2 * h - 1)) / 6);
  switch (kind) {
    case 'smoothing':
      return 1 + alpha ** 2 * (h - 1);
    case 'trend':
      return 1 + linear;
    case 'damped': {
      const q = 1 - phi;
      return (
        1 +
        alpha ** 2 * (h - 1) +
        ((beta * phi * h) / q ** 2) * (2 * alpha * q + beta * phi) -
        ((beta * phi * (1 - phi ** h)) / (q ** 2 * (1 - phi ** 2))) *
          (2 * alpha * (1 - phi ** 2) + beta * phi * (1 + 2 * phi - phi ** h))
      );
    }
    default: {
      const k = Math.floor((h - 1) / m);
      return 1 + linear + g * k * (2 * alpha + g + beta * m * (k + 1));
    }
  }
}

const PATHS = 2000;
const FURTHEST = 600;

/**
 * Bounds of the multiplicative model by simulation: relative one-step errors are normal with the
 * spread they showed; the seed is fixed, so that the same series gives the same bounds. All paths go on
 * by one period at a time, as far as was asked for: the bounds of a period do not hang on how many follow.
 */
function simulated(
  { y, season: m }: Series,
  state: EndState,
  full: Full,
  estimated: number,
): Fitted['interval'] {
  const { alpha, beta, gamma } = full;
  let sum = 0;
  let n = 0;
  for (let t = m; t < y.length; t++) {
    const e = (y[t] - state.fitted[t]) / state.fitted[t];
    if (e === e && Number.isFinite(e)) {
      sum += e * e;
      n++;
    }
  }
  const sd = n > estimated ? Math.sqrt(sum / (n - estimated)) : NaN;
  const random = generator(20_250_712);
  const levels = new Float64Array(PATHS).fill(state.level);
  const trends = new Float64Array(PATHS).fill(state.trend);
  /** By place in the season of the first period ahead, and path. */
  const seasons = state.seasons.map((season) => new Float64Array(PATHS).fill(season));
  /** By horizon, the values of all paths in rising order. */
  const horizons: Float64Array[] = [];
  const goOn = (): void => {
    const season = seasons[horizons.length % m];
    const values = new Float64Array(PATHS);
    for (let path = 0; path < PATHS; path++) {
      const s = season[path];
      const before = levels[path];
      const trend = trends[path];
      const value = (before + trend) * s * (1 + sd * normalQuantile(random()));
      const level = alpha * (value / s) + (1 - alpha) * (before + trend);
      season[path] = gamma * (value / seasonBase(full, before + trend, level)) + (1 - gamma) * s;
      trends[path] = beta * (level - before) + (1 - beta) * trend;
      levels[path] = level;
      values[path] = value;
    }
    horizons.push(values.sort());
  };
  return (h, level) => {
    if (!(sd >= 0) || h > FURTHEST) return [NaN, NaN];
    while (horizons.length < h) goOn();
    const values = horizons[h - 1];
    const at = (p: number): number =>
      values[Math.min(PATHS - 1, Math.max(0, Math.round(p * PATHS - 0.5)))];
    return [at((1 - level) / 2), at((1 + level) / 2)];
  };
}

/** Uniform numbers inside 0..1 from a seed (mulberry32, T. Ettinger; public domain). */
function generator(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let z = state;
    z = Math.imul(z ^ (z >>> 15), z | 1);
    z ^= z + Math.imul(z ^ (z >>> 7), z | 61);
    return (((z ^ (z >>> 14)) >>> 0) + 0.5) / 4_294_967_296;
  };
}

const points =
  (least: number) =>
  (series: Series): string | null =>
    series.y.length < least ? `At least ${least} points are needed.` : null;

const seasons =
  (positive: boolean) =>
  ({ y, season: m }: Series): string | null => {
    if (m < 2) return 'The periods have no season.';
    if (y.length < 2 * m) return `Two whole seasons of ${m} points are needed.`;
    if (positive && !y.every((v) => v > 0))
      return 'A multiplicative season needs every value over 0.';
    return null;
  };

export const smoothing = smooth('smoothing', points(2));
export const trend = smooth('trend', points(3));
export const damped = smooth('damped', points(4));
export const seasonalAdditive = smooth('seasonalAdditive', seasons(false));
export const seasonalMultiplicative = smooth('seasonalMultiplicative', seasons(true));

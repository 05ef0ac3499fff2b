import type { Task } from '../task/task';

/** Methods of forecasting an equally spaced series (calculations, section 13). */
export const METHODS = [
  'mean',
  'naive',
  'drift',
  'line',
  'exponential',
  'compound',
  'seasonalNaive',
  'smoothing',
  'trend',
  'damped',
  'seasonalAdditive',
  'seasonalMultiplicative',
  'seasonalLine',
] as const;
export type MethodKey = (typeof METHODS)[number];

export const METHOD_WORDS: Record<MethodKey, string> = {
  mean: 'mean of the last values',
  naive: 'the last value again',
  drift: 'the last value with the mean change (drift)',
  line: 'straight line by least squares',
  exponential: 'exponential trend',
  compound: 'compound growth from the first to the last value',
  seasonalNaive: 'the same period of the last season again',
  smoothing: 'simple exponential smoothing',
  trend: 'linear trend smoothing (Holt)',
  damped: 'damped trend smoothing',
  seasonalAdditive: 'seasonal smoothing, additive (Holt-Winters)',
  seasonalMultiplicative: 'seasonal smoothing, multiplicative (Holt-Winters)',
  seasonalLine: 'straight line with seasonal indices',
};

/** Smoothing parameters, each 0..1; those left out are found by least squared one-step error. */
export interface Parameters {
  /** Of the level. */
  readonly alpha?: number;
  /** Of the trend. */
  readonly beta?: number;
  /** Of the seasons. */
  readonly gamma?: number;
  /** How much of the trend stays from period to period; 0.8..0.98 when it is searched. */
  readonly phi?: number;
  /** mean: how many of the last values; all unless given. */
  readonly k?: number;
  /** Multiplicative seasons: what each value is divided by for its season's new index. */
  readonly seasonBy?: SeasonBy;
}

/**
 * The two usual updates of a multiplicative season: by the level and trend before the value came
 * (the component form), or by the level that it made (Winters 1960).
 */
export const SEASON_BY = ['levelBefore', 'levelNow'] as const;
export type SeasonBy = (typeof SEASON_BY)[number];

/** A part that the forecast is made of, as it stands behind the last point. */
export interface Term {
  readonly name:
    | 'level'
    | 'trend'
    | 'season'
    | 'intercept'
    | 'slope'
    | 'logIntercept'
    | 'logSlope'
    | 'rate'
    | 'change';
  readonly value: number;
  /** Seasons: how many periods ahead it comes first, from 1. */
  readonly ahead?: number;
}

export interface Series {
  readonly y: Float64Array;
  /** Periods in a season; 1: none. */
  readonly season: number;
}

/** A method fitted to a series. Horizons count from 1. */
export interface Fitted {
  /** Forecast of each point from those before it; NaN where there is none yet. */
  readonly fitted: Float64Array;
  /** Parameters found or given, for the page to show. */
  readonly parameters: Parameters;
  /** The level, trend and seasons that are carried on. */
  readonly terms: readonly Term[];
  forecast(h: number): number;
  /** Bounds that hold the value with this probability; NaN where errors tell nothing. */
  interval(h: number, level: number): readonly [number, number];
}

/** Why a series does not allow a method. */
export interface NotAllowed {
  readonly why: string;
}

/** Fits itself to a series, with pauses where parameters are searched for. */
export type Method = (series: Series, parameters: Parameters) => Task<Fitted | NotAllowed>;

/** A method that is fitted at once. */
export type PlainMethod = (series: Series, parameters: Parameters) => Fitted | NotAllowed;

export const isFitted = (result: Fitted | NotAllowed): result is Fitted => 'forecast' in result;

/** Variance of the one-step errors that are there: Σe² ÷ (n − parameters estimated); NaN without any left. */
export function errorVariance(y: Float64Array, fitted: Float64Array, parameters: number): number {
  let sum = 0;
  let n = 0;
  for (let t = 0; t < y.length; t++) {
    const e = y[t] - fitted[t];
    if (e !== e) continue;
    sum += e * e;
    n++;
  }
  return n > parameters ? sum / (n - parameters) : NaN;
}

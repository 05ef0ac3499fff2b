import {
  isFitted,
  METHODS,
  type Fitted,
  type MethodKey,
  type NotAllowed,
  type Parameters,
  type Series,
} from './method';
import { BY_KEY } from './methods';
import type { Task } from '../task/task';

/** Errors of a method on points it was not fitted to (Hyndman and Koehler 2006). */
export interface Accuracy {
  readonly mae: number;
  readonly rmse: number;
  /** Mean of |error ÷ actual|; none if an actual is 0. */
  readonly mape: number;
  /** MAE ÷ that of the (seasonal) naive method within the fitted part; none if that is 0. */
  readonly mase: number;
}

/** How many of the last points are held out: a season, or a fifth where that leaves too few. */
export function holdOutLength({ y, season }: Series): number {
  const n = y.length;
  if (season > 1 && n >= 3 * season) return season;
  return Math.max(1, Math.floor(n / 5));
}

export function accuracy(
  actual: ArrayLike<number>,
  forecast: ArrayLike<number>,
  scale: number,
): Accuracy {
  let abs = 0;
  let square = 0;
  let percent = 0;
  const n = actual.length;
  for (let k = 0; k < n; k++) {
    const e = actual[k] - forecast[k];
    abs += Math.abs(e);
    square += e * e;
    percent += actual[k] === 0 ? NaN : Math.abs(e / actual[k]);
  }
  return {
    mae: abs / n,
    rmse: Math.sqrt(square / n),
    mape: percent / n,
    mase: scale > 0 ? abs / n / scale : NaN,
  };
}

/** Mean |difference| a season apart (or from point to point): the scale of MASE. */
export function naiveScale({ y, season }: Series): number {
  const lag = season > 1 && y.length > season ? season : 1;
  let sum = 0;
  for (let t = lag; t < y.length; t++) sum += Math.abs(y[t] - y[t - lag]);
  return y.length > lag ? sum / (y.length - lag) : NaN;
}

export interface Tried {
  readonly method: MethodKey;
  readonly accuracy: Accuracy | null;
  /** Why the method was not tried; empty where it was. */
  readonly why: string;
}

/** Fits each method to all but the last points and measures it on those. */
export function* tryMethods(
  series: Series,
  methods: readonly MethodKey[],
  parameters: Parameters,
  holdOut: number,
): Task<Tried[]> {
  const train: Series = { ...series, y: series.y.subarray(0, series.y.length - holdOut) };
  const actual = series.y.subarray(train.y.length);
  const scale = naiveScale(train);
  const tried: Tried[] = [];
  for (const method of methods) {
    tried.push({ method, ...(yield* tryOne(method)) });
    yield undefined;
  }
  return tried;

  function* tryOne(method: MethodKey): Task<Omit<Tried, 'method'>> {
    if (train.y.length < 2 || holdOut < 1)
      return { accuracy: null, why: 'Too few points to hold any out.' };
    const fitted = yield* fitMethod(method, train, parameters);
    if (!isFitted(fitted)) return { accuracy: null, why: fitted.why };
    const forecast = Array.from(actual, (_, k) => fitted.forecast(k + 1));
    if (!forecast.every(Number.isFinite))
      return { accuracy: null, why: 'It leads beyond all numbers.' };
    return { accuracy: accuracy(actual, forecast, scale), why: '' };
  }
}

/** The method with the least mean absolute error on the held-out points; the simpler one of equals. */
export function bestOf(tried: readonly Tried[]): MethodKey | null {
  let best: Tried | null = null;
  for (const entry of [...tried].sort(
    (a, b) => METHODS.indexOf(a.method) - METHODS.indexOf(b.method),
  )) {
    if (!entry.accuracy) continue;
    if (!best?.accuracy || entry.accuracy.mae < best.accuracy.mae * (1 - 1e-9) - 1e-300)
      best = entry;
  }
  return best?.method ?? null;
}

/** A method fitted to a series, or why it does not allow it. */
export const fitMethod = (
  method: MethodKey,
  series: Series,
  parameters: Parameters,
): Task<Fitted | NotAllowed> => BY_KEY[method](series, parameters);

import { TallyRefused } from '../../../errors';
import {
  accuracy,
  bestOf,
  fitMethod,
  holdOutLength,
  naiveScale,
  tryMethods,
  type Accuracy,
  type Tried,
} from '../../../forecast/holdOut';
import {
  isFitted,
  METHOD_WORDS,
  METHODS,
  type Fitted,
  type MethodKey,
} from '../../../forecast/method';
import type { Task } from '../../../task/task';
import { counted } from '../../../table/format';
import type { Series } from '../../series/series';
import { pointsOf, type ForecastPoints } from './points';
import type { ForecastSpec } from './spec';

/** A series carried on by a method. */
export interface Carried {
  readonly observed: ForecastPoints;
  readonly method: MethodKey;
  readonly fitted: Fitted;
  readonly tried: readonly Tried[];
  readonly heldOut: number;
  /** The forecast of a period by its number, as `periodOf` counts. */
  at(period: number): number;
}

/** Chooses the method, fits it and carries the series on. @throws TallyRefused */
export function* carry(series: Series, spec: ForecastSpec): Task<Carried> {
  const observed = pointsOf(series, spec);
  const { points } = observed;
  const n = points.y.length;
  const heldOut = spec.holdOut ?? holdOutLength(points);
  const methods = spec.method === 'best' ? METHODS : [spec.method];
  const tried = yield* tryMethods(points, methods, spec.parameters, heldOut);
  const method = spec.method === 'best' ? bestOf(tried) : spec.method;
  if (method === null)
    throw new TallyRefused(
      `No method can be fitted: the series has ${counted(n, 'point')}. Take a shorter period or more data.`,
    );
  const fitted = yield* fitMethod(method, points, spec.parameters);
  if (!isFitted(fitted))
    throw new TallyRefused(`The ${METHOD_WORDS[method]} cannot be fitted: ${fitted.why}`);
  yield undefined;
  return {
    observed,
    method,
    fitted,
    tried,
    heldOut,
    at: (period) => fitted.forecast(period - series.first - n + 1),
  };
}

/** Errors of the fit itself, one step ahead, over the points that it gives a figure for. */
export function fitErrors({ observed: { points }, fitted }: Carried): {
  accuracy: Accuracy;
  points: number;
} {
  const there = Array.from(points.y.keys()).filter((t) => fitted.fitted[t] === fitted.fitted[t]);
  return {
    accuracy: accuracy(
      there.map((t) => points.y[t]),
      there.map((t) => fitted.fitted[t]),
      naiveScale(points),
    ),
    points: there.length,
  };
}

import type { Method, MethodKey, PlainMethod } from './method';
import {
  compound,
  drift,
  exponential,
  line,
  mean,
  naive,
  seasonalLine,
  seasonalNaive,
} from './plain';
import { damped, seasonalAdditive, seasonalMultiplicative, smoothing, trend } from './smoothing';

const atOnce = (method: PlainMethod): Method =>
  function* (series, parameters) {
    return method(series, parameters);
  };

/** Every method by its key. */
export const BY_KEY: Record<MethodKey, Method> = {
  mean: atOnce(mean),
  naive: atOnce(naive),
  drift: atOnce(drift),
  line: atOnce(line),
  exponential: atOnce(exponential),
  compound: atOnce(compound),
  seasonalNaive: atOnce(seasonalNaive),
  smoothing,
  trend,
  damped,
  seasonalAdditive,
  seasonalMultiplicative,
  seasonalLine: atOnce(seasonalLine),
};

import type { Method, MethodKey } from './method';
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

/** Every method by its key. */
export const BY_KEY: Record<MethodKey, Method> = {
  mean,
  naive,
  drift,
  line,
  exponential,
  compound,
  seasonalNaive,
  smoothing,
  trend,
  damped,
  seasonalAdditive,
  seasonalMultiplicative,
  seasonalLine,
};

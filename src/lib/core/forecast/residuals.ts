/** Errors of a fit: actual − fitted; NaN where nothing was fitted. */
export const residuals = (y: ArrayLike<number>, fitted: ArrayLike<number>): number[] =>
  Array.from(y, (v, t) => v - fitted[t]);

/**
 * Autocorrelation of the residuals at lags 1..most: Σ(e_t − ē)(e_{t−k} − ē) ÷ Σ(e_t − ē)² (Box and
 * Jenkins 1976). The residuals that are not there, at the start of a series, are left out; NaN where
 * they do not vary.
 */
export function autocorrelation(errors: readonly number[], most: number): number[] {
  const there = errors.filter((e) => e === e);
  const n = there.length;
  const mean = there.reduce((s, e) => s + e, 0) / n;
  const centred = there.map((e) => e - mean);
  const whole = centred.reduce((s, e) => s + e * e, 0);
  return Array.from({ length: Math.max(0, Math.min(most, n - 1)) }, (_, lag) => {
    let sum = 0;
    for (let t = lag + 1; t < n; t++) sum += centred[t] * centred[t - lag - 1];
    return whole > 0 ? sum / whole : NaN;
  });
}

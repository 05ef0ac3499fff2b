/** A least-squares line y = intercept + slope · x, with what its intervals need. */
export interface Line {
  readonly n: number;
  readonly intercept: number;
  readonly slope: number;
  readonly meanX: number;
  /** Σ(x − x̄)². */
  readonly sxx: number;
  /** Residual standard deviation, √(Σe² ÷ (n − 2)); NaN under 3 points. */
  readonly residualSd: number;
  /** Standard errors of the two coefficients. */
  readonly interceptSe: number;
  readonly slopeSe: number;
  /** Share of the variance explained; NaN where y does not vary. */
  readonly r2: number;
}

/**
 * Simple linear regression on centred values (Draper and Smith, Applied Regression Analysis, 1.2).
 * @returns null under 2 points, or where x does not vary
 */
export function fitLine(x: ArrayLike<number>, y: ArrayLike<number>): Line | null {
  const n = y.length;
  if (n < 2) return null;
  const [meanX, meanY] = [mean(x), mean(y)];
  let [sxx, sxy, syy] = [0, 0, 0];
  for (let i = 0; i < n; i++) {
    const [dx, dy] = [x[i] - meanX, y[i] - meanY];
    sxx += dx * dx;
    sxy += dx * dy;
    syy += dy * dy;
  }
  if (sxx === 0) return null;
  const slope = sxy / sxx;
  let sse = 0;
  for (let i = 0; i < n; i++) {
    const e = y[i] - meanY - slope * (x[i] - meanX);
    sse += e * e;
  }
  const residualSd = n > 2 ? Math.sqrt(sse / (n - 2)) : NaN;
  return {
    n,
    slope,
    intercept: meanY - slope * meanX,
    meanX,
    sxx,
    residualSd,
    slopeSe: residualSd / Math.sqrt(sxx),
    interceptSe: residualSd * Math.sqrt(1 / n + (meanX * meanX) / sxx),
    r2: syy > 0 ? 1 - sse / syy : NaN,
  };
}

export const lineAt = (line: Line, x: number): number => line.intercept + line.slope * x;

/** Standard deviation of a new observation at x: its own variance and the line's. */
export const predictionSd = ({ n, residualSd, meanX, sxx }: Line, x: number): number =>
  residualSd * Math.sqrt(1 + 1 / n + (x - meanX) ** 2 / sxx);

function mean(values: ArrayLike<number>): number {
  let [sum, lost] = [0, 0];
  for (let i = 0; i < values.length; i++) {
    const t = sum + values[i];
    const b = t - sum;
    lost += sum - (t - b) + (values[i] - b);
    sum = t;
  }
  return (sum + lost) / values.length;
}

import { filled, numbersOf } from '../task/arrays';
import { finish, inStretches, STRIDE, type Task } from '../task/task';
import { isFar, residualSums, roughMeans, sumsAbout, type LineInput } from './lineSums';

/** A least-squares line y = intercept + slope · x, with what its intervals need. */
export interface Line {
  readonly n: number;
  /** 0 where the line was put through the origin. */
  readonly intercept: number;
  readonly slope: number;
  readonly meanX: number;
  /** Σ(x − x̄)²; Σx² through the origin. */
  readonly sxx: number;
  /** Lowest and highest x. */
  readonly least: number;
  readonly most: number;
  /** Residual standard deviation, √(Σe² ÷ (n − 2)), n − 1 through the origin; NaN without any left. */
  readonly residualSd: number;
  /** Standard errors of the two coefficients; of the intercept NaN through the origin. */
  readonly interceptSe: number;
  readonly slopeSe: number;
  /** Correlation; NaN where y does not vary, and through the origin. */
  readonly r: number;
  /** Share of the variance explained (of Σy² through the origin); NaN where there is none. */
  readonly r2: number;
  readonly origin: boolean;
}

/** How many points a leaf has, and the line through them: null where there can be none. */
export interface Fit {
  readonly n: number;
  readonly line: Line | null;
}

/**
 * Simple linear regression of y on x in each leaf, over the records that have both (Draper and Smith,
 * Applied Regression Analysis, 1.2; through the origin, 1.5). Sums about a shift near the means, or
 * about the means themselves where a leaf lies far from it, then the residuals: differences of large
 * sums would lose the digits of a close fit.
 * @returns a fit for each leaf; its line is null under two values (one through the origin), or where x does not vary
 */
export function* fitLines(input: LineInput): Task<Fit[]> {
  const { leaves, origin } = input;
  const [nearX, nearY] = origin ? [0, 0] : roughMeans(input);
  let aboutX = yield* filled(new Float64Array(leaves), nearX);
  let aboutY = yield* filled(new Float64Array(leaves), nearY);
  let sums = yield* sumsAbout(input, aboutX, aboutY);
  if (!origin && (yield* isFar(sums, leaves))) {
    const { n, x, y } = sums;
    aboutX = yield* numbersOf(leaves, (g) => nearX + mean(x[g], n[g]));
    aboutY = yield* numbersOf(leaves, (g) => nearY + mean(y[g], n[g]));
    sums = yield* sumsAbout(input, aboutX, aboutY);
  }
  const meanX = new Float64Array(leaves);
  const meanY = new Float64Array(leaves);
  const slope = new Float64Array(leaves);
  yield* inStretches(leaves, (from, to) => {
    for (let g = from; g < to; g++) {
      const n = sums.n[g];
      if (!origin && n > 0) {
        sums.xx[g] -= sums.x[g] ** 2 / n;
        sums.yy[g] -= sums.y[g] ** 2 / n;
        sums.xy[g] -= (sums.x[g] * sums.y[g]) / n;
        meanX[g] = aboutX[g] + sums.x[g] / n;
        meanY[g] = aboutY[g] + sums.y[g] / n;
      }
      slope[g] = n >= (origin ? 1 : 2) && sums.xx[g] > 0 ? sums.xy[g] / sums.xx[g] : NaN;
    }
  });
  const sse = yield* residualSums(input, slope, meanX, meanY);
  const fitOf = (g: number): Fit => {
    const n = sums.n[g];
    if (slope[g] !== slope[g]) return { n, line: null };
    const xx = sums.xx[g];
    const yy = sums.yy[g];
    const df = n - (origin ? 1 : 2);
    const residualSd = df > 0 ? Math.sqrt(sse[g] / df) : NaN;
    const line: Line = {
      n,
      slope: slope[g],
      intercept: origin ? 0 : meanY[g] - slope[g] * meanX[g],
      meanX: meanX[g],
      sxx: xx,
      least: sums.least[g],
      most: sums.most[g],
      residualSd,
      slopeSe: residualSd / Math.sqrt(xx),
      interceptSe: origin ? NaN : residualSd * Math.sqrt(1 / n + meanX[g] ** 2 / xx),
      r: origin || yy <= 0 ? NaN : sums.xy[g] / Math.sqrt(xx * yy),
      r2: yy > 0 ? 1 - sse[g] / yy : NaN,
      origin,
    };
    return { n, line };
  };
  const fits: Fit[] = [];
  yield* inStretches(
    leaves,
    (from, to) => {
      for (let g = from; g < to; g++) fits.push(fitOf(g));
    },
    STRIDE >> 4,
  );
  return fits;
}

const mean = (sum: number, n: number): number => (n > 0 ? sum / n : 0);

/**
 * The line through points.
 * @returns null under 2 points, or where x does not vary
 * @example fitLine([1, 2, 3], [2, 4, 6])?.slope // 2
 */
export function fitLine(x: ArrayLike<number>, y: ArrayLike<number>, origin = false): Line | null {
  const n = y.length;
  const [fit] = finish(
    fitLines({
      x: new Float64Array(x),
      y: new Float64Array(y),
      records: Int32Array.from({ length: n }, (_, i) => i),
      leafOf: new Int32Array(n),
      leaves: 1,
      origin,
    }),
  );
  return fit.line;
}

export const lineAt = (line: Line, x: number): number => line.intercept + line.slope * x;

/** Standard deviation of a new observation at x: its own variance and the line's. */
export const predictionSd = ({ n, residualSd, meanX, sxx, origin }: Line, x: number): number =>
  residualSd * Math.sqrt(1 + (origin ? 0 : 1 / n) + (x - meanX) ** 2 / sxx);

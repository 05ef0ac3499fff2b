import { finish, type Steps } from '../steps/steps';

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

/** Lines by leaf, and what is left of each record's y. */
export interface Lines {
  /** Null under two values (one through the origin), or where x does not vary. */
  readonly lines: readonly (Line | null)[];
  /** By record; NaN where x or y is missing, or its leaf has no line. */
  readonly residuals: Float64Array;
}

/** What lines are fitted to: two columns over a selection in leaves. */
export interface LineInput {
  /** NaN: missing. */
  readonly x: Float64Array;
  readonly y: Float64Array;
  readonly records: Int32Array;
  readonly leafOf: Int32Array;
  readonly leaves: number;
  readonly origin: boolean;
}

/**
 * Simple linear regression of y on x in each leaf, over the records that have both (Draper and Smith,
 * Applied Regression Analysis, 1.2; through the origin, 1.5). Means first, then sums about them with
 * the correction for their rounding, then the residuals themselves: differences of large sums would
 * lose the digits of a close fit.
 */
export function* fitLines(input: LineInput): Steps<Lines> {
  const { x, y, records, leafOf, leaves, origin } = input;
  const count = new Float64Array(leaves);
  const meanX = new Float64Array(leaves);
  const meanY = new Float64Array(leaves);
  if (!origin) {
    means(input, count, meanX, meanY);
    yield undefined;
  } else for (const i of records) if (x[i] === x[i] && y[i] === y[i]) count[leafOf[i]]++;
  const sums = centred(input, meanX, meanY);
  yield undefined;
  const slope = new Float64Array(leaves);
  for (let g = 0; g < leaves; g++) {
    const n = count[g];
    if (!origin && n > 0) {
      sums.xx[g] -= sums.x[g] ** 2 / n;
      sums.yy[g] -= sums.y[g] ** 2 / n;
      sums.xy[g] -= (sums.x[g] * sums.y[g]) / n;
    }
    slope[g] = n >= (origin ? 1 : 2) && sums.xx[g] > 0 ? sums.xy[g] / sums.xx[g] : NaN;
  }
  const residuals = new Float64Array(x.length).fill(NaN);
  const sse = new Float64Array(leaves);
  for (let k = 0; k < records.length; k++) {
    const i = records[k];
    const g = leafOf[i];
    const e = y[i] - meanY[g] - slope[g] * (x[i] - meanX[g]);
    residuals[i] = e;
    if (e === e) sse[g] += e * e;
  }
  const lines = Array.from({ length: leaves }, (_, g): Line | null => {
    if (slope[g] !== slope[g]) return null;
    const n = count[g];
    const [xx, yy] = [sums.xx[g], sums.yy[g]];
    const df = n - (origin ? 1 : 2);
    const residualSd = df > 0 ? Math.sqrt(sse[g] / df) : NaN;
    return {
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
      r: origin || yy === 0 ? NaN : sums.xy[g] / Math.sqrt(xx * yy),
      r2: yy > 0 ? 1 - sse[g] / yy : NaN,
      origin,
    };
  });
  return { lines, residuals };
}

/** Means of the records that have both, as sums about the first values. */
function means(
  { x, y, records, leafOf, leaves }: LineInput,
  count: Float64Array,
  meanX: Float64Array,
  meanY: Float64Array,
): void {
  const [firstX, firstY] = [new Float64Array(leaves), new Float64Array(leaves)];
  for (let k = 0; k < records.length; k++) {
    const i = records[k];
    const [a, b] = [x[i], y[i]];
    if (a !== a || b !== b) continue;
    const g = leafOf[i];
    if (count[g]++ === 0) [firstX[g], firstY[g]] = [a, b];
    meanX[g] += a - firstX[g];
    meanY[g] += b - firstY[g];
  }
  for (let g = 0; g < leaves; g++) {
    meanX[g] = firstX[g] + meanX[g] / (count[g] || 1);
    meanY[g] = firstY[g] + meanY[g] / (count[g] || 1);
  }
}

/** Sums of deviations about the means, of their squares and products, and the range of x. */
function centred(
  { x, y, records, leafOf, leaves }: LineInput,
  meanX: Float64Array,
  meanY: Float64Array,
): Record<'x' | 'y' | 'xx' | 'yy' | 'xy' | 'least' | 'most', Float64Array> {
  const out = {
    x: new Float64Array(leaves),
    y: new Float64Array(leaves),
    xx: new Float64Array(leaves),
    yy: new Float64Array(leaves),
    xy: new Float64Array(leaves),
    least: new Float64Array(leaves).fill(Infinity),
    most: new Float64Array(leaves).fill(-Infinity),
  };
  for (let k = 0; k < records.length; k++) {
    const i = records[k];
    const [a, b] = [x[i], y[i]];
    if (a !== a || b !== b) continue;
    const g = leafOf[i];
    const [dx, dy] = [a - meanX[g], b - meanY[g]];
    out.x[g] += dx;
    out.y[g] += dy;
    out.xx[g] += dx * dx;
    out.yy[g] += dy * dy;
    out.xy[g] += dx * dy;
    if (a < out.least[g]) out.least[g] = a;
    if (a > out.most[g]) out.most[g] = a;
  }
  return out;
}

/**
 * The line through points.
 * @returns null under 2 points, or where x does not vary
 * @example fitLine([1, 2, 3], [2, 4, 6])?.slope // 2
 */
export function fitLine(x: ArrayLike<number>, y: ArrayLike<number>, origin = false): Line | null {
  const n = y.length;
  const { lines } = finish(
    fitLines({
      x: Float64Array.from(x),
      y: Float64Array.from(y),
      records: Int32Array.from({ length: n }, (_, i) => i),
      leafOf: new Int32Array(n),
      leaves: 1,
      origin,
    }),
  );
  return lines[0];
}

export const lineAt = (line: Line, x: number): number => line.intercept + line.slope * x;

/** Standard deviation of a new observation at x: its own variance and the line's. */
export const predictionSd = ({ n, residualSd, meanX, sxx, origin }: Line, x: number): number =>
  residualSd * Math.sqrt(1 + (origin ? 0 : 1 / n) + (x - meanX) ** 2 / sxx);

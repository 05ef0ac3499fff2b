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

/** How many points a leaf has, and the line through them: null where there can be none. */
export interface Fit {
  readonly n: number;
  readonly line: Line | null;
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
 * Applied Regression Analysis, 1.2; through the origin, 1.5). Sums about a shift near the means, or
 * about the means themselves where a leaf lies far from it, then the residuals: differences of large
 * sums would lose the digits of a close fit.
 * @returns a fit for each leaf; its line is null under two values (one through the origin), or where x does not vary
 */
export function* fitLines(input: LineInput): Steps<Fit[]> {
  const { leaves, origin } = input;
  const [nearX, nearY] = origin ? [0, 0] : roughMeans(input);
  let aboutX = new Float64Array(leaves).fill(nearX);
  let aboutY = new Float64Array(leaves).fill(nearY);
  let sums = sumsAbout(input, aboutX, aboutY);
  yield undefined;
  if (!origin && isFar(sums, leaves)) {
    aboutX = aboutX.map((c, g) => c + mean(sums.x[g], sums.n[g]));
    aboutY = aboutY.map((c, g) => c + mean(sums.y[g], sums.n[g]));
    sums = sumsAbout(input, aboutX, aboutY);
    yield undefined;
  }
  const meanX = new Float64Array(leaves);
  const meanY = new Float64Array(leaves);
  const slope = new Float64Array(leaves);
  for (let g = 0; g < leaves; g++) {
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
  const sse = residualSums(input, slope, meanX, meanY);
  return Array.from({ length: leaves }, (_, g): Fit => {
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
  });
}

const mean = (sum: number, n: number): number => (n > 0 ? sum / n : 0);

/** By leaf: how many, sums about the shift, of their squares and products, and the range of x. */
type Sums = Record<'n' | 'x' | 'y' | 'xx' | 'yy' | 'xy' | 'least' | 'most', Float64Array>;

/** Means of up to 64 records that have both, even over the selection; 0 without any. */
function roughMeans({ x, y, records }: LineInput): [number, number] {
  const stride = Math.max(1, Math.floor(records.length / 64));
  let a = 0;
  let b = 0;
  let n = 0;
  for (let k = 0; k < records.length; k += stride) {
    const i = records[k];
    if (x[i] !== x[i] || y[i] !== y[i]) continue;
    a += x[i];
    b += y[i];
    n++;
  }
  return n > 0 ? [a / n, b / n] : [0, 0];
}

/** Whether some leaf lies so far from the shift that digits would be lost. */
function isFar({ n, x, y, xx, yy }: Sums, leaves: number): boolean {
  const far = (sum: number, squares: number, of: number): boolean => {
    const taken = (sum * sum) / of;
    return taken > 4 * (squares - taken);
  };
  for (let g = 0; g < leaves; g++)
    if (n[g] > 1 && (far(x[g], xx[g], n[g]) || far(y[g], yy[g], n[g]))) return true;
  return false;
}

/** One pass. A single leaf is summed in variables: memory would be waited for at each record. */
function sumsAbout(input: LineInput, aboutX: Float64Array, aboutY: Float64Array): Sums {
  const { x, y, records, leafOf, leaves } = input;
  if (leaves === 1) return sumsOfOne(input, aboutX[0], aboutY[0]);
  const out = emptySums(leaves);
  for (let k = 0; k < records.length; k++) {
    const i = records[k];
    const a = x[i];
    const b = y[i];
    if (a !== a || b !== b) continue;
    const g = leafOf[i];
    const dx = a - aboutX[g];
    const dy = b - aboutY[g];
    out.n[g]++;
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

const emptySums = (leaves: number): Sums => ({
  n: new Float64Array(leaves),
  x: new Float64Array(leaves),
  y: new Float64Array(leaves),
  xx: new Float64Array(leaves),
  yy: new Float64Array(leaves),
  xy: new Float64Array(leaves),
  least: new Float64Array(leaves).fill(Infinity),
  most: new Float64Array(leaves).fill(-Infinity),
});

function sumsOfOne({ x, y, records }: LineInput, aboutX: number, aboutY: number): Sums {
  let n = 0;
  let sx = 0;
  let sy = 0;
  let xx = 0;
  let yy = 0;
  let xy = 0;
  let least = Infinity;
  let most = -Infinity;
  for (let k = 0; k < records.length; k++) {
    const i = records[k];
    const a = x[i];
    const b = y[i];
    if (a !== a || b !== b) continue;
    const dx = a - aboutX;
    const dy = b - aboutY;
    n++;
    sx += dx;
    sy += dy;
    xx += dx * dx;
    yy += dy * dy;
    xy += dx * dy;
    if (a < least) least = a;
    if (a > most) most = a;
  }
  const of = (v: number): Float64Array => Float64Array.of(v);
  return {
    n: of(n),
    x: of(sx),
    y: of(sy),
    xx: of(xx),
    yy: of(yy),
    xy: of(xy),
    least: of(least),
    most: of(most),
  };
}

/** Sums of the squares of what is left of each y, by leaf. */
function residualSums(
  { x, y, records, leafOf, leaves }: LineInput,
  slope: Float64Array,
  meanX: Float64Array,
  meanY: Float64Array,
): Float64Array {
  if (leaves === 1) {
    const [m, mx, my] = [slope[0], meanX[0], meanY[0]];
    let sum = 0;
    for (let k = 0; k < records.length; k++) {
      const i = records[k];
      const e = y[i] - my - m * (x[i] - mx);
      if (e === e) sum += e * e;
    }
    return Float64Array.of(sum);
  }
  const sse = new Float64Array(leaves);
  for (let k = 0; k < records.length; k++) {
    const i = records[k];
    const g = leafOf[i];
    const e = y[i] - meanY[g] - slope[g] * (x[i] - meanX[g]);
    if (e === e) sse[g] += e * e;
  }
  return sse;
}

/**
 * The line through points.
 * @returns null under 2 points, or where x does not vary
 * @example fitLine([1, 2, 3], [2, 4, 6])?.slope // 2
 */
export function fitLine(x: ArrayLike<number>, y: ArrayLike<number>, origin = false): Line | null {
  const n = y.length;
  const [fit] = finish(
    fitLines({
      x: Float64Array.from(x),
      y: Float64Array.from(y),
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

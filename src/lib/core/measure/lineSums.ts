import { inStretches, STRIDE, type Task } from '../task/task';

/** The sums that lines are made of, over a selection in leaves. */

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

/** By leaf: how many, sums about the shift, of their squares and products, and the range of x. */
type Sums = Record<'n' | 'x' | 'y' | 'xx' | 'yy' | 'xy' | 'least' | 'most', Float64Array>;

/** Means of up to 64 records that have both, even over the selection; 0 without any. */
export function roughMeans({ x, y, records }: LineInput): [number, number] {
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
export function* isFar({ n, x, y, xx, yy }: Sums, leaves: number): Task<boolean> {
  const far = (sum: number, squares: number, of: number): boolean => {
    const taken = (sum * sum) / of;
    return taken > 4 * (squares - taken);
  };
  let found = false;
  yield* inStretches(leaves, (from, to) => {
    for (let g = from; g < to && !found; g++)
      found = n[g] > 1 && (far(x[g], xx[g], n[g]) || far(y[g], yy[g], n[g]));
  });
  return found;
}

/** One pass. */
export function* sumsAbout(
  input: LineInput,
  aboutX: Float64Array,
  aboutY: Float64Array,
): Task<Sums> {
  const out = emptySums(input.leaves);
  const add = input.leaves === 1 ? addToOne : addToEach;
  yield* inStretches(
    input.records.length,
    (from, to) => add(input, aboutX, aboutY, out, from, to),
    strideOf(input.leaves),
  );
  return out;
}

/** Records between two pauses: of many leaves each of them is waited for. */
const strideOf = (leaves: number): number => (leaves === 1 ? STRIDE : STRIDE >> 4);

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

function addToEach(
  { x, y, records, leafOf }: LineInput,
  aboutX: Float64Array,
  aboutY: Float64Array,
  out: Sums,
  from: number,
  to: number,
): void {
  for (let k = from; k < to; k++) {
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
}

/** A single leaf is summed in variables: memory would be waited for at each record. */
function addToOne(
  { x, y, records }: LineInput,
  aboutOfX: Float64Array,
  aboutOfY: Float64Array,
  out: Sums,
  from: number,
  to: number,
): void {
  const aboutX = aboutOfX[0];
  const aboutY = aboutOfY[0];
  let n = out.n[0];
  let sx = out.x[0];
  let sy = out.y[0];
  let xx = out.xx[0];
  let yy = out.yy[0];
  let xy = out.xy[0];
  let least = out.least[0];
  let most = out.most[0];
  for (let k = from; k < to; k++) {
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
  out.n[0] = n;
  out.x[0] = sx;
  out.y[0] = sy;
  out.xx[0] = xx;
  out.yy[0] = yy;
  out.xy[0] = xy;
  out.least[0] = least;
  out.most[0] = most;
}

/** Sums of the squares of what is left of each y, by leaf. */
export function* residualSums(
  { x, y, records, leafOf, leaves }: LineInput,
  slope: Float64Array,
  meanX: Float64Array,
  meanY: Float64Array,
): Task<Float64Array> {
  const sse = new Float64Array(leaves);
  const addOne = (from: number, to: number): void => {
    const m = slope[0];
    const mx = meanX[0];
    const my = meanY[0];
    let sum = sse[0];
    for (let k = from; k < to; k++) {
      const i = records[k];
      const e = y[i] - my - m * (x[i] - mx);
      if (e === e) sum += e * e;
    }
    sse[0] = sum;
  };
  const addEach = (from: number, to: number): void => {
    for (let k = from; k < to; k++) {
      const i = records[k];
      const g = leafOf[i];
      const e = y[i] - meanY[g] - slope[g] * (x[i] - meanX[g]);
      if (e === e) sse[g] += e * e;
    }
  };
  yield* inStretches(records.length, leaves === 1 ? addOne : addEach, strideOf(leaves));
  return sse;
}

import { inStretches, STRIDE, type Task } from '../task/task';

/**
 * Sample quantiles by definition 7 of Hyndman and Fan (1996): linear between the ordered values,
 * p at place 1 + (n − 1)p. Values are selected, not sorted (Floyd and Rivest 1975, SELECT).
 */

/** Puts the k-th smallest of values[left..right] at k, smaller ones before and larger ones behind. */
export function select(values: Float64Array, k: number, left: number, right: number): void {
  while (right > left) {
    const j = pass(values, k, left, right);
    if (j <= k) left = j + 1;
    if (k <= j) right = j - 1;
  }
}

/** The same with pauses within each pass, for very many values. */
function* selectInParts(values: Float64Array, k: number, left: number, right: number): Task<void> {
  const ends = new Int32Array(2);
  while (right > left) {
    const pivot = begin(values, k, left, right, ends);
    while (part(values, pivot, ends, STRIDE)) yield undefined;
    const j = settle(values, pivot, left, right, ends);
    if (j <= k) left = j + 1;
    if (k <= j) right = j - 1;
    yield undefined;
  }
}

const ownEnds = new Int32Array(2);

/** One pass: values parted about one near the k-th. @returns its place */
function pass(values: Float64Array, k: number, left: number, right: number): number {
  const pivot = begin(values, k, left, right, ownEnds);
  part(values, pivot, ownEnds, Infinity);
  return settle(values, pivot, left, right, ownEnds);
}

/** Begins a pass. @returns the value to part about, which is found in a sample of many */
function begin(
  values: Float64Array,
  k: number,
  left: number,
  right: number,
  ends: Int32Array,
): number {
  if (right - left > 600) {
    const n = right - left + 1;
    const i = k - left + 1;
    const z = Math.log(n);
    const s = 0.5 * Math.exp((2 * z) / 3);
    const sd = 0.5 * Math.sqrt((z * s * (n - s)) / n) * Math.sign(i - n / 2);
    select(
      values,
      k,
      Math.max(left, Math.floor(k - (i * s) / n + sd)),
      Math.min(right, Math.floor(k + ((n - i) * s) / n + sd)),
    );
  }
  const pivot = values[k];
  swap(values, left, k);
  if (values[right] > pivot) swap(values, right, left);
  ends[0] = left;
  ends[1] = right;
  return pivot;
}

/** Goes on with a pass for so many exchanges at most. @returns whether there is more to do */
function part(values: Float64Array, pivot: number, ends: Int32Array, most: number): boolean {
  let i = ends[0];
  let j = ends[1];
  for (let done = 0; i < j && done < most; done++) {
    swap(values, i++, j--);
    while (values[i] < pivot) i++;
    while (values[j] > pivot) j--;
  }
  ends[0] = i;
  ends[1] = j;
  return i < j;
}

/** Ends a pass: the value that was parted about goes to its place. */
function settle(
  values: Float64Array,
  pivot: number,
  left: number,
  right: number,
  ends: Int32Array,
): number {
  let j = ends[1];
  if (values[left] === pivot) swap(values, left, j);
  else swap(values, ++j, right);
  return j;
}

function swap(values: Float64Array, a: number, b: number): void {
  const t = values[a];
  values[a] = values[b];
  values[b] = t;
}

/**
 * Several quantiles of values[start..end-1], which are moved about.
 * @param ps shares 0..1 in rising order
 * @returns one quantile each; NaN without values
 */
export function quantiles(
  values: Float64Array,
  start: number,
  end: number,
  ps: readonly number[],
): number[] {
  let from = start;
  return ps.map((p) => {
    if (end === start) return NaN;
    const { k, share } = placeOf(start, end, p);
    select(values, k, Math.min(from, k), end - 1);
    from = k;
    return between(values, k, end, share);
  });
}

/** The same of very many values, with pauses. */
export function* quantilesInParts(values: Float64Array, ps: readonly number[]): Task<number[]> {
  const out: number[] = [];
  let from = 0;
  for (const p of ps) {
    const { k, share } = placeOf(0, values.length, p);
    yield* selectInParts(values, k, Math.min(from, k), values.length - 1);
    from = k;
    out.push(share === 0 ? values[k] : yield* betweenInParts(values, k, share));
    yield undefined;
  }
  return out;
}

/** Where a quantile falls: at the value of place k, or a share of the way to the next. */
function placeOf(start: number, end: number, p: number): { k: number; share: number } {
  const at = (end - start - 1) * p;
  const low = Math.floor(at);
  return { k: start + low, share: at - low };
}

/** @param values those behind k are no smaller than its own */
function between(values: Float64Array, k: number, end: number, share: number): number {
  if (share === 0) return values[k];
  return values[k] + share * (leastOf(values, k + 1, end, Infinity) - values[k]);
}

function* betweenInParts(values: Float64Array, k: number, share: number): Task<number> {
  let next = Infinity;
  yield* inStretches(values.length - k - 1, (from, to) => {
    next = leastOf(values, k + 1 + from, k + 1 + to, next);
  });
  return values[k] + share * (next - values[k]);
}

function leastOf(values: Float64Array, from: number, to: number, before: number): number {
  let least = before;
  for (let i = from; i < to; i++) if (values[i] < least) least = values[i];
  return least;
}

import type { Steps } from '../steps/steps';

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

/** The same with a pause after each pass, for very many values. */
function* selectInParts(values: Float64Array, k: number, left: number, right: number): Steps<void> {
  while (right > left) {
    const j = pass(values, k, left, right);
    if (j <= k) left = j + 1;
    if (k <= j) right = j - 1;
    yield undefined;
  }
}

/** One pass: values parted about one near the k-th, which is found in a sample of many. @returns its place */
function pass(values: Float64Array, k: number, left: number, right: number): number {
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
  let i = left;
  let j = right;
  swap(values, left, k);
  if (values[right] > pivot) swap(values, right, left);
  while (i < j) {
    swap(values, i++, j--);
    while (values[i] < pivot) i++;
    while (values[j] > pivot) j--;
  }
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
export function* quantilesInParts(values: Float64Array, ps: readonly number[]): Steps<number[]> {
  const out: number[] = [];
  let from = 0;
  for (const p of ps) {
    const { k, share } = placeOf(0, values.length, p);
    yield* selectInParts(values, k, Math.min(from, k), values.length - 1);
    from = k;
    out.push(between(values, k, values.length, share));
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
  let next = Infinity;
  for (let i = k + 1; i < end; i++) if (values[i] < next) next = values[i];
  return values[k] + share * (next - values[k]);
}

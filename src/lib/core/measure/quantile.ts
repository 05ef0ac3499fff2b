/**
 * Sample quantiles by definition 7 of Hyndman and Fan (1996): linear between the ordered values,
 * p at place 1 + (n − 1)p. Values are selected, not sorted (Floyd and Rivest 1975, SELECT).
 */

/** Puts the k-th smallest of values[left..right] at k, smaller ones before and larger ones behind. */
export function select(values: Float64Array, k: number, left: number, right: number): void {
  while (right > left) {
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
    if (j <= k) left = j + 1;
    if (k <= j) right = j - 1;
  }
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
  const n = end - start;
  if (n === 0) return ps.map(() => NaN);
  let from = start;
  return ps.map((p) => {
    const at = (n - 1) * p;
    const low = Math.floor(at);
    const k = start + low;
    select(values, k, Math.min(from, k), end - 1);
    from = k;
    const share = at - low;
    if (share === 0) return values[k];
    let next = Infinity;
    for (let i = k + 1; i < end; i++) if (values[i] < next) next = values[i];
    return values[k] + share * (next - values[k]);
  });
}

/**
 * Sample quantiles of ordered values by the nine definitions of Hyndman and Fan, "Sample Quantiles
 * in Statistical Packages", The American Statistician 50 (1996), 361-365.
 */
export const DEFINITIONS = [1, 2, 3, 4, 5, 6, 7, 8, 9] as const;
export type Definition = (typeof DEFINITIONS)[number];

/** What each definition is called in plain words. */
export const DEFINITION_WORDS: Record<Definition, string> = {
  1: 'nearest rank: the smallest value with at least p·n values at or under it',
  2: 'nearest rank, the mean of two where p·n is whole',
  3: 'nearest even rank',
  4: 'linear between the ordered values, p at p·n',
  5: 'linear, p at p·n + ½',
  6: 'linear, p at p·(n + 1)',
  7: 'linear between the ordered values, p at 1 + (n − 1)·p',
  8: 'linear, about the same place for every distribution’s median, p at ⅓ + (n + ⅓)·p',
  9: 'linear, fit for normal values, p at ⅜ + (n + ¼)·p',
};

const M: Record<Definition, (p: number) => number> = {
  1: () => 0,
  2: () => 0,
  3: () => -0.5,
  4: () => 0,
  5: () => 0.5,
  6: (p) => p,
  7: (p) => 1 - p,
  8: (p) => (p + 1) / 3,
  9: (p) => p / 4 + 3 / 8,
};

/** n·p + m a hair from a whole number counts as that number: binary fractions must not decide. */
const HAIR = 4 * Number.EPSILON;

/** Where a quantile falls: between the j-th and the next ordered value (from 1), at a share of the way. */
export interface Place {
  readonly j: number;
  readonly share: number;
  /** n·p + m: the place as a number. */
  readonly at: number;
}

/** @param p 0..1 @param n values, at least 1 */
export function quantilePlace(n: number, p: number, definition: Definition): Place {
  const at = n * p + M[definition](p);
  const j = Math.floor(at + HAIR * Math.max(1, n));
  let g = at - j;
  if (Math.abs(g) < HAIR * Math.max(1, n)) g = 0;
  const share =
    definition === 1
      ? Number(g > 0)
      : definition === 2
        ? g > 0
          ? 1
          : 0.5
        : definition === 3
          ? Number(!(g === 0 && j % 2 === 0))
          : g;
  return { j, share, at };
}

/** The quantile of values in rising order; NaN without any. */
export function quantileBy(
  ordered: ArrayLike<number>,
  p: number,
  definition: Definition = 7,
): number {
  const n = ordered.length;
  if (n === 0) return NaN;
  const { j, share } = quantilePlace(n, p, definition);
  const low = ordered[Math.min(n, Math.max(1, j)) - 1];
  const high = ordered[Math.min(n, Math.max(1, j + 1)) - 1];
  return share === 0 || low === high ? low : share === 1 ? high : low + share * (high - low);
}

/** How the share of values under a value is counted. */
export const RANK_METHODS = ['atOrUnder', 'under', 'middle', 'interpolated'] as const;
export type RankMethod = (typeof RANK_METHODS)[number];

export const RANK_WORDS: Record<RankMethod, string> = {
  atOrUnder: 'share of values at or under it',
  under: 'share of values under it',
  middle: 'mean of the shares under it and at or under it',
  interpolated: 'the inverse of definition 7, between the ordered values',
};

/**
 * Percentile rank of v among values in rising order (0..1).
 * Interpolated: none outside lowest..highest; the first place of tied values; 1 value: 0.
 */
export function percentileRank(
  ordered: ArrayLike<number>,
  v: number,
  method: RankMethod = 'atOrUnder',
): number {
  const n = ordered.length;
  if (n === 0 || v !== v) return NaN;
  const under = lowerBound(ordered, v);
  const atOrUnder = upperBound(ordered, v);
  switch (method) {
    case 'atOrUnder':
      return atOrUnder / n;
    case 'under':
      return under / n;
    case 'middle':
      return (under + atOrUnder) / (2 * n);
    case 'interpolated': {
      if (v < ordered[0] || v > ordered[n - 1]) return NaN;
      if (n === 1) return 0;
      if (ordered[under] === v) return under / (n - 1);
      const low = ordered[under - 1];
      const high = ordered[under];
      return (under - 1 + (v - low) / (high - low)) / (n - 1);
    }
  }
}

/** How many ordered values are under v. */
export function lowerBound(ordered: ArrayLike<number>, v: number): number {
  let low = 0;
  let high = ordered.length;
  while (low < high) {
    const mid = (low + high) >>> 1;
    if (ordered[mid] < v) low = mid + 1;
    else high = mid;
  }
  return low;
}

/** How many ordered values are at or under v. */
export function upperBound(ordered: ArrayLike<number>, v: number): number {
  let low = 0;
  let high = ordered.length;
  while (low < high) {
    const mid = (low + high) >>> 1;
    if (ordered[mid] <= v) low = mid + 1;
    else high = mid;
  }
  return low;
}

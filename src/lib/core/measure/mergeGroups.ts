import type { Accumulators } from './accumulate';

/*
 * What one group of accumulators comes to with another: sums after Neumaier (1974), squares after Chan,
 * Golub and LeVeque (1983). The other group has values.
 */

export function mergeSums(to: Accumulators, into: number, of: Accumulators, from: number): void {
  to.count[into] += of.count[from];
  const s = to.high[into];
  const t = s + of.high[from];
  const b = t - s;
  to.low[into] += s - (t - b) + (of.high[from] - b) + of.low[from];
  to.high[into] = t;
}

/** Before the sums, which it goes by. */
export function mergeSquares(to: Accumulators, into: number, of: Accumulators, from: number): void {
  const [na, nb] = [to.count[into], of.count[from]];
  to.squares[into] += of.squares[from];
  if (na === 0) return;
  const delta = (of.high[from] + of.low[from]) / nb - (to.high[into] + to.low[into]) / na;
  to.squares[into] += (delta * delta * na * nb) / (na + nb);
}

export function mergeFarthest(
  to: Accumulators,
  into: number,
  of: Accumulators,
  from: number,
): void {
  const [own, its] = [to.reach[into], of.reach[from]];
  if (its < own || (its === own && of.farAt[from] > to.farAt[into])) return;
  to.reach[into] = its;
  to.farAt[into] = of.farAt[from];
}

/** The first record of equal ones. */
export function mergeExtremes(
  to: Accumulators,
  into: number,
  of: Accumulators,
  from: number,
): void {
  const [low, lowAt] = [of.min[from], of.minAt[from]];
  if (low < to.min[into] || (low === to.min[into] && lowAt < to.minAt[into])) {
    to.min[into] = low;
    to.minAt[into] = lowAt;
  }
  const [high, highAt] = [of.max[from], of.maxAt[from]];
  if (high > to.max[into] || (high === to.max[into] && highAt < to.maxAt[into])) {
    to.max[into] = high;
    to.maxAt[into] = highAt;
  }
}

import { inStretches, type Task } from '../task/task';
import type { MeasureKind } from './measure';

/** Means, and measures of how far values lie from one. */

/**
 * A measure of distances from the mean of values[from..to-1]; NaN where it needs more values.
 * Sources: skewness and kurtosis as G1, G2 and g1, g2 in Joanes and Gill (1998).
 */
export function aboutMean(
  kind: MeasureKind,
  values: Float64Array,
  from: number,
  to: number,
): number {
  const about = distancesFrom(mean(values, from, to));
  addDistances(about, values, from, to);
  return ofDistances(kind, about, to - from);
}

/** The same of very many values, with pauses. */
export function* aboutMeanInParts(kind: MeasureKind, values: Float64Array): Task<number> {
  const about = distancesFrom(yield* meanInParts(values));
  yield* inStretches(values.length, (from, to) => addDistances(about, values, from, to));
  return ofDistances(kind, about, values.length);
}

/** A sum, and what rounding took from it (Neumaier 1974). */
interface Total {
  sum: number;
  lost: number;
}

function addTo(total: Total, values: Float64Array, from: number, to: number): void {
  let { sum, lost } = total;
  for (let i = from; i < to; i++) {
    const t = sum + values[i];
    const b = t - sum;
    lost += sum - (t - b) + (values[i] - b);
    sum = t;
  }
  total.sum = sum;
  total.lost = lost;
}

/** NaN without values. */
export function mean(values: Float64Array, from: number, to: number): number {
  const total = { sum: 0, lost: 0 };
  addTo(total, values, from, to);
  return to > from ? (total.sum + total.lost) / (to - from) : NaN;
}

/** The same of very many values, with pauses. */
export function* meanInParts(values: Float64Array): Task<number> {
  const total = { sum: 0, lost: 0 };
  yield* inStretches(values.length, (from, to) => addTo(total, values, from, to));
  return values.length ? (total.sum + total.lost) / values.length : NaN;
}

/** Sums over distances from a centre: of their sizes, squares, third and fourth powers. */
interface Distances {
  readonly centre: number;
  size: number;
  m2: number;
  m3: number;
  m4: number;
}

const distancesFrom = (centre: number): Distances => ({ centre, size: 0, m2: 0, m3: 0, m4: 0 });

function addDistances(about: Distances, values: Float64Array, from: number, to: number): void {
  const { centre } = about;
  let { size, m2, m3, m4 } = about;
  for (let i = from; i < to; i++) {
    const d = values[i] - centre;
    size += Math.abs(d);
    m2 += d * d;
    m3 += d * d * d;
    m4 += d * d * d * d;
  }
  about.size = size;
  about.m2 = m2;
  about.m3 = m3;
  about.m4 = m4;
}

function ofDistances(kind: MeasureKind, about: Distances, n: number): number {
  if (kind === 'meanDeviation') return n > 0 ? about.size / n : NaN;
  const m2 = about.m2 / n;
  if (!(m2 > 0)) return NaN;
  const g1 = about.m3 / n / m2 ** 1.5;
  const g2 = about.m4 / n / (m2 * m2) - 3;
  switch (kind) {
    case 'skewnessPopulation':
      return g1;
    case 'skewness':
      return n < 3 ? NaN : (g1 * Math.sqrt(n * (n - 1))) / (n - 2);
    case 'kurtosisPopulation':
      return g2;
    default:
      return n < 4 ? NaN : ((n - 1) / ((n - 2) * (n - 3))) * ((n + 1) * g2 + 6);
  }
}

/** The mean of the distances from a centre; NaN without values. */
export function meanDistance(
  values: Float64Array,
  from: number,
  to: number,
  centre: number,
): number {
  const about = distancesFrom(centre);
  addDistances(about, values, from, to);
  return ofDistances('meanDeviation', about, to - from);
}

/** The same of very many values, with pauses. */
export function* meanDistanceInParts(values: Float64Array, centre: number): Task<number> {
  const about = distancesFrom(centre);
  yield* inStretches(values.length, (from, to) => addDistances(about, values, from, to));
  return ofDistances('meanDeviation', about, values.length);
}

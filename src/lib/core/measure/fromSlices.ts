import { byQuantiles, type Measure } from './measure';
import { quantileBy, type Definition } from './quantileDefinitions';
import { quantiles } from './quantile';

/**
 * A measure that needs the values themselves, values[from..to-1]; NaN: none. They are moved about.
 * Sources: skewness and kurtosis as G1, G2 and g1, g2 in Joanes and Gill (1998).
 */
export function fromSlice(
  measure: Measure,
  values: Float64Array,
  from: number,
  to: number,
): number {
  const { definition } = measure;
  if (definition !== undefined && definition !== 7 && byQuantiles(measure.kind))
    return byDefinition(measure, values.subarray(from, to).sort(), definition as Definition);
  const q = (p: number): number => quantiles(values, from, to, [p])[0];
  switch (measure.kind) {
    case 'median':
      return q(0.5);
    case 'percentile':
      return q((measure.percent ?? 50) / 100);
    case 'lowerQuartile':
      return q(0.25);
    case 'upperQuartile':
      return q(0.75);
    case 'iqr': {
      const [q1, q3] = quantiles(values, from, to, [0.25, 0.75]);
      return q3 - q1;
    }
    case 'trimmedMean':
      return trimmedMean(values.subarray(from, to), (measure.percent ?? 5) / 100);
    case 'meanDeviation':
      return meanDistance(values, from, to, mean(values, from, to));
    case 'medianDeviation':
      return meanDistance(values, from, to, q(0.5));
    case 'skewness':
    case 'skewnessPopulation':
    case 'kurtosis':
    case 'kurtosisPopulation':
      return shape(measure.kind, values, from, to);
    case 'product':
      return product(values, from, to);
    case 'geometricMean':
      return geometricMean(values, from, to);
    case 'distinct':
      return distinct(values.subarray(from, to));
    case 'modeTies':
      return mode(values.subarray(from, to)).ties;
    case 'mode':
      return mode(values.subarray(from, to)).value;
    default:
      return NaN;
  }
}

/** Quantile measures of ordered values by another definition than 7. */
function byDefinition(
  { kind, percent }: Measure,
  ordered: Float64Array,
  definition: Definition,
): number {
  const q = (share: number): number => quantileBy(ordered, share, definition);
  switch (kind) {
    case 'lowerQuartile':
      return q(0.25);
    case 'upperQuartile':
      return q(0.75);
    case 'iqr':
      return q(0.75) - q(0.25);
    case 'percentile':
      return q((percent ?? 50) / 100);
    default:
      return q(0.5);
  }
}

function mean(values: Float64Array, from: number, to: number): number {
  let sum = 0;
  let lost = 0;
  for (let i = from; i < to; i++) {
    const t = sum + values[i];
    const b = t - sum;
    lost += sum - (t - b) + (values[i] - b);
    sum = t;
  }
  return to > from ? (sum + lost) / (to - from) : NaN;
}

function meanDistance(values: Float64Array, from: number, to: number, centre: number): number {
  let sum = 0;
  for (let i = from; i < to; i++) sum += Math.abs(values[i] - centre);
  return to > from ? sum / (to - from) : NaN;
}

/** The share p cut at each end: floor(p·n) values; none where nothing would be left. */
function trimmedMean(slice: Float64Array, p: number): number {
  const cut = Math.floor(p * slice.length);
  if (slice.length - 2 * cut < 1) return NaN;
  slice.sort();
  return mean(slice, cut, slice.length - cut);
}

function shape(kind: string, values: Float64Array, from: number, to: number): number {
  const n = to - from;
  const centre = mean(values, from, to);
  let [m2, m3, m4] = [0, 0, 0];
  for (let i = from; i < to; i++) {
    const d = values[i] - centre;
    m2 += d * d;
    m3 += d * d * d;
    m4 += d * d * d * d;
  }
  [m2, m3, m4] = [m2 / n, m3 / n, m4 / n];
  if (!(m2 > 0)) return NaN;
  const g1 = m3 / m2 ** 1.5;
  const g2 = m4 / (m2 * m2) - 3;
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

function product(values: Float64Array, from: number, to: number): number {
  if (to === from) return NaN;
  let out = 1;
  for (let i = from; i < to; i++) out *= values[i];
  return out;
}

/** All values over 0; through the mean of the logarithms. */
function geometricMean(values: Float64Array, from: number, to: number): number {
  if (to === from) return NaN;
  let logs = 0;
  for (let i = from; i < to; i++) {
    if (!(values[i] > 0)) return NaN;
    logs += Math.log(values[i]);
  }
  return Math.exp(logs / (to - from));
}

function distinct(slice: Float64Array): number {
  slice.sort();
  let n = 0;
  for (let i = 0; i < slice.length; i++) if (i === 0 || slice[i] !== slice[i - 1]) n++;
  return n;
}

/** The commonest value, the smallest of several; `ties` says how many are as common. */
export function mode(slice: Float64Array): { value: number; times: number; ties: number } {
  slice.sort();
  let best = { value: NaN, times: 0, ties: 0 };
  for (let i = 0; i < slice.length;) {
    let j = i;
    while (j < slice.length && slice[j] === slice[i]) j++;
    if (j - i > best.times) best = { value: slice[i], times: j - i, ties: 1 };
    else if (j - i === best.times) best.ties++;
    i = j;
  }
  return best;
}

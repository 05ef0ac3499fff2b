import { STRIDE, type Steps } from '../steps/steps';
import { aboutMean, aboutMeanInParts, mean, meanDistance } from './aboutMean';
import { byQuantiles, type Measure, type MeasureKind } from './measure';
import { DEFINITIONS, quantileBy, type Definition } from './quantileDefinitions';
import { quantiles, quantilesInParts } from './quantile';
import type { Slices } from './slices';
import { sortedInParts } from '../sorting/sorted';

/** Beyond so many values of one group there is a pause within it. */
const MANY = STRIDE >> 1;

/** A measure that needs the values themselves, of every group; NaN: none. They are moved about. */
export function* fromSlices(measure: Measure, { values, start }: Slices): Steps<Float64Array> {
  const out = new Float64Array(start.length - 1);
  let paused = 0;
  for (let g = 0; g < out.length; g++) {
    const from = start[g];
    const to = start[g + 1];
    out[g] =
      to - from > MANY
        ? yield* fromMany(measure, values.subarray(from, to))
        : fromSlice(measure, values, from, to);
    if (to - paused > STRIDE >> 2) {
      paused = to;
      yield undefined;
    }
  }
  return out;
}

/** A measure of values[from..to-1], which are moved about; NaN: none. */
export function fromSlice(
  measure: Measure,
  values: Float64Array,
  from: number,
  to: number,
): number {
  if (needsOrder(measure)) return fromOrdered(measure, values.subarray(from, to).sort());
  const shares = sharesOf(measure);
  return fromValues(measure, values, from, to, shares && quantiles(values, from, to, shares));
}

/** The same of very many values, with pauses. */
function* fromMany(measure: Measure, values: Float64Array): Steps<number> {
  if (needsOrder(measure)) return fromOrdered(measure, yield* sortedInParts(values));
  const shares = sharesOf(measure);
  const found = shares && (yield* quantilesInParts(values, shares));
  if (!CENTRED.includes(measure.kind)) return fromValues(measure, values, 0, values.length, found);
  return yield* aboutMeanInParts(measure.kind, values);
}

/** Made of distances from the mean. */
const CENTRED: readonly MeasureKind[] = [
  'meanDeviation',
  'skewness',
  'skewnessPopulation',
  'kurtosis',
  'kurtosisPopulation',
];

const ORDERED: readonly MeasureKind[] = ['trimmedMean', 'distinct', 'mode', 'modeTies'];

/** The definition that quantiles are taken by from ordered values; null for the usual one, and for what is no quantile. */
const byDefinition = ({ kind, definition }: Measure): Definition | null =>
  definition !== 7 && byQuantiles(kind)
    ? (DEFINITIONS.find((d) => d === definition) ?? null)
    : null;

const needsOrder = (measure: Measure): boolean =>
  ORDERED.includes(measure.kind) || byDefinition(measure) !== null;

/** The quantiles that a measure is made of; null where it is made of none. */
function sharesOf({ kind, percent }: Measure): number[] | null {
  switch (kind) {
    case 'median':
    case 'medianDeviation':
      return [0.5];
    case 'percentile':
      return [(percent ?? 50) / 100];
    case 'lowerQuartile':
      return [0.25];
    case 'upperQuartile':
      return [0.75];
    case 'iqr':
      return [0.25, 0.75];
    default:
      return null;
  }
}

/** A measure of ordered values. */
function fromOrdered(measure: Measure, ordered: Float64Array): number {
  const definition = byDefinition(measure);
  if (definition !== null) {
    const found = sharesOf(measure)?.map((share) => quantileBy(ordered, share, definition)) ?? [];
    return measure.kind === 'iqr' ? found[1] - found[0] : found[0];
  }
  switch (measure.kind) {
    case 'trimmedMean':
      return trimmedMean(ordered, (measure.percent ?? 5) / 100);
    case 'distinct':
      return distinct(ordered);
    case 'modeTies':
      return mode(ordered).ties;
    default:
      return mode(ordered).value;
  }
}

/**
 * A measure of values as they come, and of their quantiles where it is made of some.
 */
function fromValues(
  { kind }: Measure,
  values: Float64Array,
  from: number,
  to: number,
  found: readonly number[] | null,
): number {
  if (CENTRED.includes(kind)) return aboutMean(kind, values, from, to);
  switch (kind) {
    case 'iqr':
      return found ? found[1] - found[0] : NaN;
    case 'medianDeviation':
      return found ? meanDistance(values, from, to, found[0]) : NaN;
    case 'product':
      return product(values, from, to);
    case 'geometricMean':
      return geometricMean(values, from, to);
    default:
      return found ? found[0] : NaN;
  }
}

/** The share p cut at each end: floor(p·n) values; none where nothing would be left. */
function trimmedMean(ordered: Float64Array, p: number): number {
  const cut = Math.floor(p * ordered.length);
  if (ordered.length - 2 * cut < 1) return NaN;
  return mean(ordered, cut, ordered.length - cut);
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

function distinct(ordered: Float64Array): number {
  let n = 0;
  for (let i = 0; i < ordered.length; i++) if (i === 0 || ordered[i] !== ordered[i - 1]) n++;
  return n;
}

/** The commonest of ordered values, the smallest of several; `ties` says how many are as common. */
export function mode(ordered: Float64Array): { value: number; times: number; ties: number } {
  let best = { value: NaN, times: 0, ties: 0 };
  for (let i = 0; i < ordered.length;) {
    let j = i;
    while (j < ordered.length && ordered[j] === ordered[i]) j++;
    if (j - i > best.times) best = { value: ordered[i], times: j - i, ties: 1 };
    else if (j - i === best.times) best.ties++;
    i = j;
  }
  return best;
}

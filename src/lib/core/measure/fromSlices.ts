import { inStretches, STRIDE, type Task } from '../task/task';
import {
  aboutMean,
  aboutMeanInParts,
  mean,
  meanDistance,
  meanDistanceInParts,
  meanInParts,
} from './aboutMean';
import { byQuantiles, type Measure, type MeasureKind } from './measure';
import { DEFINITIONS, quantileBy, type Definition } from './quantileDefinitions';
import { quantiles, quantilesInParts } from './quantile';
import { GeometricMean, Product, type Fold } from './products';
import { runsInParts, runsOf, type Runs } from './runs';
import type { Slices } from './slices';
import { sortedInParts } from '../sorting/sorted';

/** Beyond so many values of one group there is a pause within it. */
const MANY = STRIDE >> 1;

/** A measure that needs the values themselves, of every group; NaN: none. They are moved about. */
export function* fromSlices(measure: Measure, { values, start }: Slices): Task<Float64Array> {
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
export function* fromMany(measure: Measure, values: Float64Array): Task<number> {
  if (needsOrder(measure)) return yield* fromManyOrdered(measure, yield* sortedInParts(values));
  if (CENTRED.includes(measure.kind)) return yield* aboutMeanInParts(measure.kind, values);
  const fold = foldOf(measure.kind);
  if (fold) {
    yield* inStretches(values.length, (from, to) => fold.add(values, from, to));
    return fold.value;
  }
  const shares = sharesOf(measure);
  const found = shares && (yield* quantilesInParts(values, shares));
  if (measure.kind === 'medianDeviation' && found)
    return yield* meanDistanceInParts(values, found[0]);
  return fromValues(measure, values, 0, values.length, found);
}

function* fromManyOrdered(measure: Measure, ordered: Float64Array): Task<number> {
  const cut = measure.kind === 'trimmedMean' ? trimmed(measure, ordered) : null;
  if (cut) return yield* meanInParts(cut);
  if (byDefinition(measure) !== null || measure.kind === 'trimmedMean')
    return fromOrdered(measure, ordered);
  return ofRuns(measure.kind, yield* runsInParts(ordered));
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
  if (measure.kind !== 'trimmedMean') return ofRuns(measure.kind, runsOf(ordered));
  const cut = trimmed(measure, ordered);
  return cut ? mean(cut, 0, cut.length) : NaN;
}

const ofRuns = (kind: MeasureKind, runs: Runs): number =>
  kind === 'distinct' ? runs.distinct : kind === 'modeTies' ? runs.ties : runs.value;

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
  const fold = foldOf(kind);
  if (fold) {
    fold.add(values, from, to);
    return fold.value;
  }
  switch (kind) {
    case 'iqr':
      return found ? found[1] - found[0] : NaN;
    case 'medianDeviation':
      return found ? meanDistance(values, from, to, found[0]) : NaN;
    default:
      return found ? found[0] : NaN;
  }
}

const foldOf = (kind: MeasureKind): Fold | null =>
  kind === 'product' ? new Product() : kind === 'geometricMean' ? new GeometricMean() : null;

/** Ordered values without the share p cut at each end, floor(p·n) values; null where nothing would be left. */
function trimmed({ percent }: Measure, ordered: Float64Array): Float64Array | null {
  const cut = Math.floor(((percent ?? 5) / 100) * ordered.length);
  return ordered.length - 2 * cut < 1 ? null : ordered.subarray(cut, ordered.length - cut);
}

import { z } from 'zod';
import type { ColumnType } from '../table/column';
import { ordinal } from '../table/format';

/** The measures over one column (calculations, section 3). */
export const MEASURE_KINDS = [
  'records',
  'values',
  'blanks',
  'unread',
  'distinct',
  'sum',
  'mean',
  'median',
  'min',
  'max',
  'range',
  'percentile',
  'lowerQuartile',
  'upperQuartile',
  'iqr',
  'sd',
  'sdPopulation',
  'variance',
  'variancePopulation',
  'standardError',
  'cv',
  'meanDeviation',
  'medianDeviation',
  'skewness',
  'skewnessPopulation',
  'kurtosis',
  'kurtosisPopulation',
  'product',
  'geometricMean',
  'trimmedMean',
  'mode',
  'modeTies',
  'weightedMean',
  'ratio',
  'difference',
  'atMin',
  'atMax',
  'minTies',
  'maxTies',
  'first',
  'last',
  'shareOfParent',
  'shareOfTotal',
  'recordsOfParent',
  'recordsOfTotal',
  'running',
] as const;
export type MeasureKind = (typeof MEASURE_KINDS)[number];

/** A measure of one column under each group. */
export const Measure = z.strictObject({
  kind: z.enum(MEASURE_KINDS),
  /** Column id; left out for the count of records. */
  column: z.string().optional(),
  /** percentile: the per cent below (0..100). trimmedMean: the per cent cut at each end (0..50). */
  percent: z.number().min(0).max(100).optional(),
  /**
   * weightedMean: the column of weights. atMin, atMax: the column whose value is shown. ratio, difference: the column
   * whose sum the other is divided by, or is less by.
   */
  other: z.string().optional(),
  /** median, percentile, quartiles: the definition of Hyndman and Fan; 7 unless given. */
  definition: z.int().min(1).max(9).optional(),
});
export type Measure = z.infer<typeof Measure>;

/** What a measure's figures are written in. */
export type FigureKind = 'count' | 'column' | 'other' | 'share' | 'number' | 'squared';

interface MeasureFacts {
  /** Its words in a sentence: `sum` of `sum of Boarded`. */
  readonly words: string;
  readonly types: readonly ColumnType[];
  readonly figure: FigureKind;
  /** Whether group figures add up to their parent's. */
  readonly adds: boolean;
}

const ANY: readonly ColumnType[] = ['text', 'number', 'date', 'datetime', 'time', 'yesno'];
const ORDERED: readonly ColumnType[] = ['number', 'date', 'datetime', 'time'];
const NUMBERS: readonly ColumnType[] = ['number', 'yesno'];

const facts = (
  words: string,
  types: readonly ColumnType[],
  figure: FigureKind,
  adds = false,
): MeasureFacts => ({
  words,
  types,
  figure,
  adds,
});

/** The catalogue: words, columns it suits, and how its figures are written. */
export const MEASURES: Record<MeasureKind, MeasureFacts> = {
  records: facts('count of records', ANY, 'count', true),
  values: facts('count of values', ANY, 'count', true),
  blanks: facts('count of blanks', ANY, 'count', true),
  unread: facts('count of unread cells', ANY, 'count', true),
  distinct: facts('count of distinct values', ANY, 'count'),
  sum: facts('sum', NUMBERS, 'column', true),
  mean: facts('mean', ['number', 'yesno', 'date', 'datetime', 'time'], 'column'),
  median: facts('median', ORDERED, 'column'),
  min: facts('lowest', ORDERED, 'column'),
  max: facts('highest', ORDERED, 'column'),
  range: facts('range', ['number'], 'column'),
  percentile: facts('percentile', ORDERED, 'column'),
  lowerQuartile: facts('lower quartile', ORDERED, 'column'),
  upperQuartile: facts('upper quartile', ORDERED, 'column'),
  iqr: facts('interquartile range', ['number'], 'column'),
  sd: facts('standard deviation', NUMBERS, 'number'),
  sdPopulation: facts('standard deviation (population)', NUMBERS, 'number'),
  variance: facts('variance', NUMBERS, 'squared'),
  variancePopulation: facts('variance (population)', NUMBERS, 'squared'),
  standardError: facts('standard error', NUMBERS, 'number'),
  cv: facts('coefficient of variation', NUMBERS, 'share'),
  meanDeviation: facts('mean deviation from the mean', NUMBERS, 'number'),
  medianDeviation: facts('mean deviation from the median', NUMBERS, 'number'),
  skewness: facts('skewness', NUMBERS, 'squared'),
  skewnessPopulation: facts('skewness (population)', NUMBERS, 'squared'),
  kurtosis: facts('excess kurtosis', NUMBERS, 'squared'),
  kurtosisPopulation: facts('excess kurtosis (population)', NUMBERS, 'squared'),
  product: facts('product', ['number'], 'number'),
  geometricMean: facts('geometric mean', ['number'], 'number'),
  trimmedMean: facts('trimmed mean', ['number'], 'number'),
  mode: facts('mode', ANY, 'column'),
  modeTies: facts('count of values as common as the mode', ANY, 'count'),
  weightedMean: facts('weighted mean', ['number'], 'column'),
  ratio: facts('ratio of sums', NUMBERS, 'number'),
  difference: facts('difference of sums', NUMBERS, 'number'),
  atMin: facts('value at the lowest', ORDERED, 'other'),
  atMax: facts('value at the highest', ORDERED, 'other'),
  minTies: facts('count of records at the lowest', ORDERED, 'count'),
  maxTies: facts('count of records at the highest', ORDERED, 'count'),
  first: facts('first', ANY, 'column'),
  last: facts('last', ANY, 'column'),
  shareOfParent: facts('share of the group above', NUMBERS, 'share'),
  shareOfTotal: facts('share of the grand total', NUMBERS, 'share'),
  recordsOfParent: facts('share of the records of the group above', ANY, 'share'),
  recordsOfTotal: facts('share of all records', ANY, 'share'),
  running: facts('running total', NUMBERS, 'column', true),
};

export const suits = (kind: MeasureKind, column: { readonly type: string }): boolean =>
  MEASURES[kind].types.some((type) => type === column.type);

/** `90th percentile`, `mean without the outer 10 %`, or the catalogue's word. */
export function measureWords({ kind, percent, definition }: Measure): string {
  if (definition !== undefined && definition !== 7 && byQuantiles(kind))
    return `${measureWords({ kind, percent })} (definition ${definition})`;
  if (kind === 'percentile') return `${ordinal(percent ?? 50)} percentile`;
  if (kind === 'trimmedMean') return `mean without the outer ${percent ?? 5} %`;
  return MEASURES[kind].words;
}

/** Measures that rest on sample quantiles, whose definition can be chosen. */
export const byQuantiles = (kind: MeasureKind): boolean =>
  ['median', 'percentile', 'lowerQuartile', 'upperQuartile', 'iqr'].includes(kind);

/** What a measure's second column is for; null where it has none. */
export function needsOther(kind: MeasureKind): 'weights' | 'shown' | 'sum' | null {
  switch (kind) {
    case 'weightedMean':
      return 'weights';
    case 'atMin':
    case 'atMax':
      return 'shown';
    case 'ratio':
    case 'difference':
      return 'sum';
    default:
      return null;
  }
}

/** Measures that look at the order of the records: first, last, and the first record of a tie. */
export const looksAtOrder = (kind: MeasureKind): boolean =>
  kind === 'first' || kind === 'last' || kind === 'atMin' || kind === 'atMax';

/** Measures of records as such, which need no column. */
export const ofRecords = (kind: MeasureKind): boolean =>
  kind === 'records' || kind === 'recordsOfParent' || kind === 'recordsOfTotal';

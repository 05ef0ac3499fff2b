import { MEASURES, MEASURE_KINDS, needsOther, type MeasureKind } from '../../measure/measure';

/** Words for measures besides those of the catalogue, as the trade says them. */
const ALSO: readonly (readonly [words: string, kind: MeasureKind])[] = [
  ['total', 'sum'],
  ['average', 'mean'],
  ['avg', 'mean'],
  ['count', 'records'],
  ['number', 'records'],
  ['how many', 'records'],
  ['highest', 'max'],
  ['maximum', 'max'],
  ['max', 'max'],
  ['largest', 'max'],
  ['biggest', 'max'],
  ['latest', 'max'],
  ['lowest', 'min'],
  ['minimum', 'min'],
  ['min', 'min'],
  ['smallest', 'min'],
  ['earliest', 'min'],
  ['deviation', 'sd'],
  ['distinct', 'distinct'],
  ['different', 'distinct'],
  ['unique', 'distinct'],
  ['number of different', 'distinct'],
  ['number of distinct', 'distinct'],
  ['number of unique', 'distinct'],
  ['count of distinct', 'distinct'],
  ['count of different', 'distinct'],
  ['how many different', 'distinct'],
  ['how many distinct', 'distinct'],
  ['share', 'shareOfTotal'],
  ['shares', 'shareOfTotal'],
  ['share of the total', 'shareOfTotal'],
  ['share of total', 'shareOfTotal'],
  ['per cent', 'shareOfTotal'],
  ['percent', 'shareOfTotal'],
  ['percentage', 'shareOfTotal'],
  ['%', 'shareOfTotal'],
  ['per cent of the total', 'shareOfTotal'],
  ['per cent of total', 'shareOfTotal'],
  ['percentage of the total', 'shareOfTotal'],
  ['cumulative', 'running'],
  ['running', 'running'],
  ['running sum', 'running'],
  ['weighted average', 'weightedMean'],
  ['weighted mean', 'weightedMean'],
];

/** Measures by the words that name them, longest first. Ratios and what stands at an extreme are said otherwise. */
export const MEASURE_PHRASES: readonly (readonly [words: readonly string[], kind: MeasureKind])[] =
  [
    ...MEASURE_KINDS.filter((kind) => needsOther(kind) === null).map(
      (kind) => [MEASURES[kind].words.split(' '), kind] as const,
    ),
    ...ALSO.map(([words, kind]) => [words.split(' '), kind] as const),
  ].sort(([a], [b]) => b.length - a.length);

/** Every word that names a measure, or is one of several that do. */
export const MEASURE_WORDS: ReadonlySet<string> = new Set(
  MEASURE_PHRASES.flatMap(([words]) => words),
);

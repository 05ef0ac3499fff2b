import type { MeasureKind } from '../../core/measure/measure';

/** Measures in the groups in which an analyst looks for them. */
export const MEASURE_GROUPS: readonly {
  readonly name: string;
  readonly kinds: readonly MeasureKind[];
}[] = [
  { name: 'Counts', kinds: ['records', 'values', 'blanks', 'unread', 'distinct'] },
  { name: 'Totals', kinds: ['sum', 'ratio', 'difference', 'running', 'product'] },
  {
    name: 'Middle',
    kinds: ['mean', 'median', 'mode', 'modeTies', 'weightedMean', 'trimmedMean', 'geometricMean'],
  },
  {
    name: 'Spread',
    kinds: [
      'sd',
      'sdPopulation',
      'variance',
      'variancePopulation',
      'standardError',
      'cv',
      'range',
      'iqr',
      'meanDeviation',
      'medianDeviation',
    ],
  },
  {
    name: 'Order',
    kinds: [
      'min',
      'max',
      'percentile',
      'lowerQuartile',
      'upperQuartile',
      'first',
      'last',
      'atMin',
      'atMax',
      'minTies',
      'maxTies',
    ],
  },
  {
    name: 'Shape',
    kinds: ['skewness', 'skewnessPopulation', 'kurtosis', 'kurtosisPopulation'],
  },
  { name: 'Shares', kinds: ['shareOfParent', 'shareOfTotal', 'recordsOfParent', 'recordsOfTotal'] },
];

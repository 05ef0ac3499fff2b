import { showScalar, usualFormat } from '../../table/cell';
import { isText, type Column } from '../../table/column';
import { fullNumber, showCount, showNumber, type NumberFormat } from '../../table/format';
import { MEASURES, type Measure } from '../../measure/measure';

/** Formats by column id, or by `column:measure` for one measure's figures. */
export type Formats = Readonly<Record<string, NumberFormat>>;

export const formatKey = (measure: Measure): string => `${measure.column ?? ''}:${measure.kind}`;

/** Kinds whose figures want a place more than whole values have. */
const FINER = new Set([
  'mean',
  'median',
  'percentile',
  'lowerQuartile',
  'upperQuartile',
  'iqr',
  'trimmedMean',
  'geometricMean',
]);

/** A figure as shown. None is written out: it is never 0. */
export function figureText(
  measure: Measure,
  column: Column | null,
  value: number,
  formats: Formats,
): string {
  if (value !== value) return 'none';
  const { figure } = MEASURES[measure.kind];
  const own = formats[formatKey(measure)];
  if (figure === 'count') return own ? showNumber(value, own) : showCount(value);
  if (figure === 'share') return showNumber(value, own ?? { ...PERCENT });
  if (column === null) return showNumber(value);
  if (isText(column)) return column.dictionary[value] ?? 'none';
  if (figure === 'column' && column.type !== 'number' && column.type !== 'yesno')
    return showScalar(column, measure.kind === 'mean' ? Math.round(value) : value);
  const base = own ?? formats[column.id] ?? usualFormat(column);
  if (figure === 'squared')
    return showNumber(
      value,
      own ?? { ...base, style: 'plain', decimals: undefined, significant: 5 },
    );
  const finer = figure === 'number' || FINER.has(measure.kind) || column.type === 'yesno';
  const decimals =
    own || formats[column.id]
      ? base.decimals
      : finer
        ? Math.max(column.decimals, 1)
        : column.decimals;
  return showNumber(value, { ...base, decimals }, column.decimals);
}

const PERCENT: NumberFormat = {
  decimals: 1,
  thousands: true,
  style: 'percent',
  currency: '£',
  scale: 'one',
  negative: 'minus',
};

/** Significant digits of the deviation that a mean is shown with; 0: none is shown. */
export function deviationDigits(measure: Measure, formats: Formats): 0 | 1 | 2 {
  if (measure.kind !== 'mean' || measure.column === undefined) return 0;
  return (formats[formatKey(measure)] ?? formats[measure.column])?.deviation ?? 0;
}

/** A mean with its deviation as shown: the deviation to 1 or 2 significant digits, the mean to the same place. */
export function meanWithDeviation(
  mean: number,
  sd: number,
  digits: 1 | 2,
  unmarked: NumberFormat,
): string {
  if (mean !== mean) return 'none';
  if (!(sd > 0))
    return `${showNumber(mean, { ...unmarked, significant: undefined })} ± ${sd === 0 ? '0' : 'none'}`;
  const rounded = Number(sd.toPrecision(digits));
  const place = Math.floor(Math.log10(rounded)) - digits + 1;
  const step = 10 ** place;
  const decimals = Math.max(0, -place);
  const show = (v: number): string =>
    showNumber(place > 0 ? Math.round(v / step) * step : v, {
      ...unmarked,
      significant: undefined,
      decimals,
    });
  return `${show(mean)} ± ${show(rounded)}`;
}

/** A figure with every digit, as open formats write it; none is empty. */
export function fullFigure(measure: Measure, column: Column | null, value: number): string {
  if (value !== value) return '';
  const { figure } = MEASURES[measure.kind];
  if (figure === 'column' && column) {
    if (isText(column)) return column.dictionary[value] ?? '';
    if (column.type !== 'number' && column.type !== 'yesno')
      return figureText(measure, column, value, {});
  }
  return fullNumber(value);
}

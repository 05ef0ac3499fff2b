import { isText, type Column } from '../table/column';
import { showValue, usualFormat } from '../table/cell';
import { showCount, showNumber, type NumberFormat } from '../table/format';
import type { Measure } from '../measure/measure';
import { readIsoFigure } from './readFigure';
import type { Figure, FigureColumn } from './result';

/** Formats by column id, or by `column:measure` for one measure's figures. */
export type Formats = Readonly<Record<string, NumberFormat>>;

export const formatKey = (measure: Measure): string => `${measure.column ?? ''}:${measure.kind}`;

const SHARE: NumberFormat = {
  decimals: 1,
  thousands: true,
  style: 'percent',
  currency: '£',
  scale: 'one',
  negative: 'minus',
};

/** The format a column of figures has until the analyst chooses one. */
const ownFormat = ({ type, percent, decimals, significant }: FigureColumn): NumberFormat => ({
  ...SHARE,
  style: type === 'share' || percent ? 'percent' : 'plain',
  decimals: type === 'share' ? 1 : decimals,
  ...(significant !== undefined && { significant }),
});

/** The format chosen for a column of figures: for its measure, or for the column of the list. */
function chosenFormat({ measure, type }: FigureColumn, formats: Formats): NumberFormat | undefined {
  if (!measure) return undefined;
  const own = formats[formatKey(measure)];
  if (own || type === 'count' || type === 'share') return own;
  return formats[measure.other ?? measure.column ?? ''];
}

/**
 * A figure as people read it: `1,234.50`, `12.0 %`, `3 May 2025`. None is written out, never 0.
 * The one formatter of pages, reports and copies of what is shown.
 */
export function figureText(column: FigureColumn, figure: Figure, formats: Formats = {}): string {
  if (figure === null) return 'none';
  const { type } = column;
  if (type === 'text' || type === 'rank') return String(figure);
  if (typeof figure === 'string') {
    if (type === 'count' || type === 'share' || type === 'number') return figure;
    const value = readIsoFigure(type, figure);
    const { grain = 'day', calendar } = column;
    return value === null ? figure : showValue({ type, grain, calendar }, value);
  }
  const chosen = chosenFormat(column, formats);
  if (type === 'count') return chosen ? showNumber(figure, chosen) : showCount(figure);
  const format = chosen ?? ownFormat(column);
  return showNumber(figure, format, column.decimals ?? usualDecimals(figure));
}

/**
 * Places of a number that no column says anything of: all of them where two are all, as of money; else
 * enough to tell it, four at most.
 */
function usualDecimals(value: number): number {
  const size = Math.abs(value);
  const exact = [0, 1, 2].find((places) => {
    const scaled = size * 10 ** places;
    return Math.abs(scaled - Math.round(scaled)) <= scaled * 2 ** -44;
  });
  return exact ?? (size >= 100 ? 1 : size >= 1 ? 2 : 4);
}

/** A figure with every digit, as open formats write it: dates in ISO 8601, no marks; none is empty. */
export const fullFigure = (figure: Figure): string => (figure === null ? '' : String(figure));

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

/** The format of a column's own values, for figures that are written beside them. */
export const formatOf = (column: Column, formats: Formats): NumberFormat | undefined =>
  isText(column) ? undefined : (formats[column.id] ?? usualFormat(column));

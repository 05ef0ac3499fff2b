import { isText, type Column } from '../../table/column';
import { showValue, usualFormat } from '../../table/cell';
import { showCount, shownPerOne, showNumber, type NumberFormat } from '../../table/format';
import { formatKey, type Formats } from '../spec/formats';
import { readIsoFigure } from './readFigure';
import { columnOfFigure, type Figure, type FigureColumn, type FigureRow } from './result';

const SHARE: NumberFormat = {
  decimals: 1,
  thousands: true,
  style: 'percent',
  currency: '£',
  scale: 'one',
  negative: 'minus',
};

/** The format a column of figures has until the analyst chooses one. */
const ownFormat = ({
  type,
  percent,
  decimals,
  significant,
  plain,
}: FigureColumn): NumberFormat => ({
  ...SHARE,
  thousands: !plain,
  style: type === 'share' || percent ? 'percent' : 'plain',
  decimals: type === 'share' ? 1 : decimals,
  ...(significant !== undefined && { significant }),
});

/** The format chosen for a column of figures: for its measure, or for the column of the list. */
function chosenFormat(
  { measure, type, column }: FigureColumn,
  formats: Formats,
): NumberFormat | undefined {
  if (!measure) return column === undefined ? undefined : formats[column];
  const own = formats[formatKey(measure)];
  if (own || type === 'count' || type === 'share') return own;
  return formats[measure.other ?? measure.column ?? ''];
}

/**
 * A figure as people read it: `1,234.50`, `12.0 %`, `3 May 2025`. None is written out, never 0.
 * The one formatter of pages, reports and copies of what is shown.
 * @param deviation of a mean that may be shown with it; null where there is none. Never shown unless given
 */
export function figureText(
  column: FigureColumn,
  figure: Figure,
  formats: Formats = {},
  deviation?: number | null,
): string {
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
  if (deviation !== undefined && format.deviation && column.measure?.kind === 'mean')
    return meanWithDeviation(figure, deviation ?? NaN, format.deviation, format);
  return numberText(figure, { ...format, decimals: format.decimals ?? column.decimals });
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

/** How the numbers of a column are shown: as was chosen, or as they are by themselves. */
export const numberFormatOf = (column: FigureColumn, formats: Formats): NumberFormat => {
  const format = chosenFormat(column, formats) ?? ownFormat(column);
  return { ...format, decimals: format.decimals ?? column.decimals };
};

/** A number by a format; where that names no digits, with as many as it needs. */
export const numberText = (value: number, format: NumberFormat): string =>
  showNumber(value, format, usualDecimals(value));

/**
 * A figure of a row as people read it; a label that is not there is empty.
 * @param at the place of its column
 */
export function cellText(
  { columns, labels }: { readonly columns: readonly FigureColumn[]; readonly labels: number },
  { cells, deviations, measures }: Pick<FigureRow, 'cells' | 'deviations' | 'measures'>,
  at: number,
  formats: Formats = {},
): string {
  const cell = cells[at];
  // A blank cell of a record is blank; a figure that does not exist is “none”.
  if (cell === null && (at < labels || columns[at].column !== undefined)) return '';
  const deviation = deviations?.find(({ column }) => column === at)?.value;
  return figureText(columnOfFigure(columns, { measures }, at), cell, formats, deviation);
}

/** A mean with its deviation as shown: the deviation to 1 or 2 significant digits, the mean to the same place. */
export function meanWithDeviation(
  mean: number,
  sd: number,
  digits: 1 | 2,
  format: NumberFormat,
): string {
  if (mean !== mean) return 'none';
  const unrounded = { ...format, significant: undefined };
  if (!(sd > 0)) return `${showNumber(mean, unrounded)} ± ${sd === 0 ? '0' : 'none'}`;
  // The digits are those that are shown: of per cent, or of thousands.
  const one = shownPerOne(format);
  const rounded = Number((sd * one).toPrecision(digits));
  const place = Math.floor(Math.log10(rounded)) - digits + 1;
  const step = 10 ** place;
  const decimals = Math.max(0, -place);
  const show = (v: number): string =>
    showNumber((place > 0 ? Math.round(v / step) * step : v) / one, { ...unrounded, decimals });
  return `${show(mean * one)} ± ${show(rounded)}`;
}

/** The format of a column's own values, for figures that are written beside them. */
export const formatOf = (column: Column, formats: Formats): NumberFormat | undefined =>
  isText(column) ? undefined : (formats[column.id] ?? usualFormat(column));

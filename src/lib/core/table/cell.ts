import { clockTime, DAY_MS, isoDate, isoDateTime, plainDate } from './calendar';
import { isText, type Column, type ScalarColumn, type ScalarType } from './column';
import { periodLabel, periodOf } from './period';
import { fullNumber, showNumber, type NumberFormat } from './format';
import { looksLikeYears } from './years';

/** Whether a column's values look like years, found once for as long as they live. */
const years = new WeakMap<Float64Array, boolean>();

function areYears(column: ScalarColumn): boolean {
  let are = years.get(column.values);
  if (are === undefined) years.set(column.values, (are = looksLikeYears(column)));
  return are;
}

/** The format a column has before the analyst chooses one. Years are written as 2024, not as 2,024. */
export const usualFormat = (column: ScalarColumn): NumberFormat => ({
  thousands: !areYears(column),
  style: column.percent ? 'percent' : 'plain',
  currency: '£',
  scale: 'one',
  negative: 'minus',
  decimals: column.percent ? Math.max(0, column.decimals - 2) : column.decimals,
});

/** A date, time or yes/no as the page shows it. */
export function showValue(
  {
    type,
    grain,
    calendar,
  }: Pick<ScalarColumn, 'grain' | 'calendar'> & { type: Exclude<ScalarType, 'number'> },
  value: number,
): string {
  switch (type) {
    case 'date':
      return grain === 'day'
        ? plainDate(value)
        : periodLabel(periodOf(value, grain, calendar), grain, calendar);
    case 'datetime': {
      const day = Math.floor(value / DAY_MS);
      return `${plainDate(day)}, ${clockTime(value - day * DAY_MS)}`;
    }
    case 'time':
      return clockTime(value);
    case 'yesno':
      return value ? 'yes' : 'no';
  }
}

/** A value of a scalar column as the page shows it; NaN gives an empty text. */
export function showScalar(column: ScalarColumn, value: number, format?: NumberFormat): string {
  if (Number.isNaN(value)) return '';
  const { type, grain, calendar } = column;
  return type === 'number'
    ? showNumber(value, format ?? usualFormat(column), column.decimals)
    : showValue({ type, grain, calendar }, value);
}

/** A cell as shown. A blank gives an empty text, an unread cell the text that stood in the file. */
export function showCell(column: Column, record: number, format?: NumberFormat): string {
  if (isText(column))
    return column.codes[record] < 0 ? '' : column.dictionary[column.codes[record]];
  return column.unread.get(record) ?? showScalar(column, column.values[record], format);
}

/** A scalar in full, as open formats write it: ISO 8601 dates, all digits, no marks. */
export function fullScalar(column: ScalarColumn, value: number): string {
  return fullScalarOf(column.type, value);
}

/** A value of a type in full; NaN gives an empty text. */
export function fullScalarOf(type: ScalarType, value: number): string {
  if (Number.isNaN(value)) return '';
  switch (type) {
    case 'date':
      return isoDate(value);
    case 'datetime':
      return isoDateTime(value);
    case 'time':
      return clockTime(value);
    case 'yesno':
      return value ? 'yes' : 'no';
    case 'number':
      return fullNumber(value);
  }
}

export function fullCell(column: Column, record: number): string {
  if (isText(column)) return showCell(column, record);
  return column.unread.get(record) ?? fullScalar(column, column.values[record]);
}

import { BadCondition } from '../errors';
import { noDateFacts, readClock, readDate, readDateTime } from '../read/dates';
import { DAY_MS } from '../table/calendar';
import type { ScalarColumn } from '../table/column';
import { periodEnd, periodOf, type CalendarPeriod } from '../table/period';
import { daysNamed } from '../table/periodName';

/** What a point of a condition covers, both in: one value, or a whole day or period. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** What may be written where a date is asked for. */
export const DATE_FORMS = '2024-04-30, 2024-04, 2024-Q2, 2024-H1, 2024-W07 or 2024';

/**
 * A point of a condition as the column's numbers: a number, days, or milliseconds. A bare year,
 * quarter, month, week or day covers the whole of it (calculations, section 1).
 * @throws BadCondition for what is no value of the column, for a number where dates stand, and for a
 * date that can be read two ways
 */
export function spanOf(column: ScalarColumn, point: number | string): Span {
  if (column.type === 'number' || column.type === 'yesno') return numberSpan(column, point);
  if (typeof point === 'number')
    throw new BadCondition(
      `${column.name} holds ${column.type === 'time' ? 'times' : 'dates'}, and ${point} is a number. Write ${column.type === 'time' ? 'a time as text: “08:30”' : `a date as text: ${quoted(Number.isInteger(point) && point > 999 && point < 10_000 ? String(point) : '2024-04-30')}`}.`,
    );
  const text = point.trim();
  if (column.type === 'time') return one(readClock(text), column, point);
  const days = daysCovered(text);
  if (days)
    return column.type === 'date'
      ? days
      : { from: days.from * DAY_MS, to: (days.to + 1) * DAY_MS - 1 };
  if (column.type === 'datetime' && !isAmbiguous(text.split(/[T ]/)[0]))
    return one(readDateTime(text, 'ymd', 'clock', noDateFacts()), column, point);
  throw unreadable(column, point);
}

/** The first value that a point covers. @throws BadCondition */
export const pointOf = (column: ScalarColumn, point: number | string): number =>
  spanOf(column, point).from;

const quoted = (text: string): string => `“${text}”`;

function numberSpan(column: ScalarColumn, point: number | string): Span {
  const value = typeof point === 'number' ? point : point.trim() === '' ? NaN : Number(point);
  return one(value, column, point);
}

function one(value: number, column: ScalarColumn, point: number | string): Span {
  if (Number.isNaN(value)) throw unreadable(column, point);
  return { from: value, to: value };
}

function unreadable(column: ScalarColumn, point: number | string): BadCondition {
  const dated = column.type === 'date' || column.type === 'datetime';
  if (dated && isAmbiguous(String(point)))
    return new BadCondition(
      `${quoted(String(point))} can be read two ways. Write the year first: ${quoted('2024-04-30')}.`,
    );
  return new BadCondition(
    `${quoted(String(point))} cannot be read as a value of ${column.name}.${dated ? ` Write ${DATE_FORMS}.` : ''}`,
  );
}

/** Day, month and year in an order that nothing decides. */
const isAmbiguous = (text: string): boolean =>
  /^\d{1,2}[-/.]\d{1,2}[-/.]\d{1,4}$/.test(text.trim());

/** The days that a date or a period covers; null where the text is neither, or can be read two ways. */
export function daysCovered(text: string): Span | null {
  if (isAmbiguous(text)) return null;
  const named = daysNamed(text);
  if (named) return named;
  const facts = noDateFacts();
  const from = readDate(text, 'ymd', facts);
  if (Number.isNaN(from)) return null;
  const grain: CalendarPeriod = facts.grains.year
    ? 'year'
    : facts.grains.quarter
      ? 'quarter'
      : facts.grains.month
        ? 'month'
        : 'day';
  return { from, to: periodEnd(periodOf(from, grain), grain) };
}

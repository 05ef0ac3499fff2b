import { civil, DAY_MS, dayNumber, daysInMonth } from '../../table/calendar';
import type { ScalarColumn } from '../../table/column';
import {
  MONTHS_IN,
  periodEnd,
  periodOf,
  periodStart,
  type Calendar,
  type CalendarPeriod,
} from '../../table/period';
import { standsFor } from './placeInPeriod';
import { rangeOf } from '../input/range';

/** Days from the first to the last, both in. */
export interface Days {
  readonly from: number;
  readonly to: number;
}

/** The days that the dates of a whole list cover: a date that stands for a month covers all of it. */
export function coveredDays(column: ScalarColumn, calendar: Calendar): Days {
  const perDay = column.type === 'datetime' ? DAY_MS : 1;
  const { min, max } = rangeOf(column);
  const of = standsFor(column, calendar);
  const own = column.type === 'date' && column.grain !== 'day' ? column.calendar : calendar;
  return {
    from: periodStart(periodOf(Math.floor(min / perDay), of, own), of, own),
    to: periodEnd(periodOf(Math.floor(max / perDay), of, own), of, own),
  };
}

/** Whether the list's own dates cover the first and the last of some periods only partly. */
export function coverage(
  column: ScalarColumn,
  period: CalendarPeriod,
  calendar: Calendar,
  first: number,
  length: number,
): { partialFirst: boolean; partialLast: boolean } {
  const { from, to } = coveredDays(column, calendar);
  return {
    partialFirst: from > periodStart(first, period, calendar),
    partialLast: to < periodEnd(first + length - 1, period, calendar),
  };
}

/**
 * The day at the same place of another period: 30 April in the month before is 31 March, as the end
 * of a month stays its end; 15 August a quarter before is 15 May; weeks keep their weekday.
 */
export function sameDayIn(day: number, period: CalendarPeriod, from: number, to: number): number {
  if (period === 'day') return day + to - from;
  if (period === 'week') return day + 7 * (to - from);
  const { year, month, day: date } = civil(day);
  const months = year * 12 + month - 1 + MONTHS_IN[period] * (to - from);
  const y = Math.floor(months / 12);
  const m = (((months % 12) + 12) % 12) + 1;
  const last = daysInMonth(y, m);
  return dayNumber(y, m, date === daysInMonth(year, month) ? last : Math.min(date, last));
}

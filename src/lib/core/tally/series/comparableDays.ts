import { periodEnd, periodStart, type Calendar, type CalendarPeriod } from '../../table/period';
import { sameDayIn, type Days } from './coverage';

/** All days of a period. */
export const daysOfPeriod = (index: number, period: CalendarPeriod, calendar: Calendar): Days => ({
  from: periodStart(index, period, calendar),
  to: periodEnd(index, period, calendar),
});

/**
 * The days of two periods that are like, where the dates of the list cover the later one or the
 * earlier one only in part; null where both are whole (calculations, section 9).
 * @param p the later period by its number, `q` the earlier one
 */
export function comparableDays(
  p: number,
  q: number,
  period: CalendarPeriod,
  covered: Days,
  calendar: Calendar,
): { own: Days; other: Days } | null {
  const own = daysOfPeriod(p, period, calendar);
  const other = daysOfPeriod(q, period, calendar);
  const cutLast = covered.to < own.to;
  const cutFirst = covered.from > other.from;
  if (!cutLast && !cutFirst) return null;
  return {
    own: {
      from: cutFirst ? sameDayIn(covered.from, period, q, p) : own.from,
      to: cutLast ? covered.to : own.to,
    },
    other: {
      from: cutFirst ? covered.from : other.from,
      to: cutLast ? sameDayIn(covered.to, period, p, q) : other.to,
    },
  };
}

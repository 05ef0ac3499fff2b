import { dayNumber, isCivil, isoWeekStart } from './calendar';
import { periodEnd, periodOf, type CalendarPeriod } from './period';

/** Days from the first to the last, both in. */
export interface NamedDays {
  readonly from: number;
  readonly to: number;
}

/** A year; or its half, quarter, week, month or day. The dash before a letter may be left out. */
const NAME = /^(\d{4})(?:-?(H[12])|-?(Q[1-4])|-?W(\d{2})|-(\d{2})(?:-(\d{2}))?)?$/i;

const whole = (from: number, period: CalendarPeriod): NamedDays => ({
  from,
  to: periodEnd(periodOf(from, period), period),
});

/**
 * The days of a period by its name: `2024`, `2024-H1`, `2024-Q2`, `2024-04`, `2024-W07` (ISO 8601),
 * `2024-04-30`; null for any other text.
 * @example daysNamed('2024-Q2') // from 1 April to 30 June
 */
export function daysNamed(text: string): NamedDays | null {
  const named = NAME.exec(text);
  if (!named) return null;
  const year = Number(named[1]);
  const [, , half, quarter, week, month, day] = named;
  const first = (m: number): number => dayNumber(year, m, 1);
  if (half) return whole(first(half.endsWith('1') ? 1 : 7), 'half');
  if (quarter) return whole(first(Number(quarter.slice(1)) * 3 - 2), 'quarter');
  if (week) {
    const from = isoWeekStart(year, Number(week));
    return from === null ? null : { from, to: from + 6 };
  }
  if (month === undefined) return whole(first(1), 'year');
  if (!isCivil(year, Number(month), Number(day ?? 1))) return null;
  const from = dayNumber(year, Number(month), Number(day ?? 1));
  return day === undefined ? whole(from, 'month') : { from, to: from };
}

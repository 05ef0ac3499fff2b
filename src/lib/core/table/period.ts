import { z } from 'zod';
import { civil, dayNumber, isoWeek, MONTHS, plainDate, weekday, WEEKDAYS } from './calendar';

/** Periods a date can be grouped by. All but weekday follow one another on the calendar. */
export const PERIODS = ['day', 'week', 'month', 'quarter', 'half', 'year', 'weekday'] as const;
export type Period = (typeof PERIODS)[number];

/** Periods that have a place on the calendar. */
export const CALENDAR_PERIODS = ['day', 'week', 'month', 'quarter', 'half', 'year'] as const;
export type CalendarPeriod = (typeof CALENDAR_PERIODS)[number];

/**
 * A period no finer than the span that each date stands for: a year has no month of its own.
 * @example noFinerThan('month', 'year') // 'year'
 */
export const noFinerThan = <P extends Period>(
  period: P,
  grain: CalendarPeriod,
): P | CalendarPeriod =>
  period !== 'weekday' && PERIODS.indexOf(period) < PERIODS.indexOf(grain) ? grain : period;

/** Where years and weeks begin, and by which year a year across two is named. */
export const Calendar = z.strictObject({
  /** Month that years, half-years and quarters are counted from. */
  yearStartsIn: z.int().min(1).max(12).default(1),
  yearNamedBy: z.enum(['start', 'end']).default('start'),
  /** 1 Monday (ISO 8601) .. 7 Sunday. */
  weekStartsOn: z.int().min(1).max(7).default(1),
});
export type Calendar = z.infer<typeof Calendar>;

export const USUAL_CALENDAR: Calendar = { yearStartsIn: 1, yearNamedBy: 'start', weekStartsOn: 1 };

/**
 * The number of the period that a day falls in. Rising days give rising numbers, and neighbours
 * differ by one (weekday: 0 Monday .. 6 Sunday). Weeks are ISO 8601 weeks unless they start elsewhere.
 */
export function periodOf(days: number, period: Period, calendar = USUAL_CALENDAR): number {
  switch (period) {
    case 'day':
      return days;
    case 'week':
      return Math.floor((days + 4 - calendar.weekStartsOn) / 7);
    case 'weekday':
      return weekday(days);
  }
  const { year, month } = civil(days);
  const months = year * 12 + month - 1;
  return period === 'month' ? months : periodOfMonth(months, period, calendar);
}

/** Months in the periods that months make. */
export const MONTHS_IN = { month: 1, quarter: 3, half: 6, year: 12 } as const;

/** The quarter, half-year or year that a month (counted from year 0) falls in. */
export const periodOfMonth = (
  months: number,
  period: 'quarter' | 'half' | 'year',
  calendar = USUAL_CALENDAR,
): number => Math.floor((months - calendar.yearStartsIn + 1) / MONTHS_IN[period]);

/** First day of a period; not for weekday, which has no place on the calendar. */
export function periodStart(
  index: number,
  period: CalendarPeriod,
  calendar = USUAL_CALENDAR,
): number {
  switch (period) {
    case 'day':
      return index;
    case 'week':
      return index * 7 - 4 + calendar.weekStartsOn;
    default:
      return monthStart(firstMonth(index, period, calendar));
  }
}

/** Last day of a period. */
export const periodEnd = (
  index: number,
  period: CalendarPeriod,
  calendar = USUAL_CALENDAR,
): number => periodStart(index + 1, period, calendar) - 1;

const firstMonth = (
  index: number,
  period: 'month' | 'quarter' | 'half' | 'year',
  calendar: Calendar,
): number => index * MONTHS_IN[period] + (period === 'month' ? 0 : calendar.yearStartsIn - 1);

const monthStart = (months: number): number =>
  dayNumber(Math.floor(months / 12), (((months % 12) + 12) % 12) + 1, 1);

/** How many periods make a year; null for days, which do not divide it evenly. */
export const PERIODS_IN_YEAR: Record<CalendarPeriod, number | null> = {
  day: null,
  week: null,
  month: 12,
  quarter: 4,
  half: 2,
  year: 1,
};

/** `2025`; a year across two `2024/25`, or `2025` where it is named by the one it ends in. */
function yearLabel(year: number, { yearStartsIn, yearNamedBy }: Calendar): string {
  if (yearStartsIn === 1) return String(year);
  return yearNamedBy === 'end'
    ? String(year + 1)
    : `${year}/${String((year + 1) % 100).padStart(2, '0')}`;
}

/** `Jul 2025`, `Jul–Sep 2025`, `2025 week 28`, `Saturday`. */
export function periodLabel(index: number, period: Period, calendar = USUAL_CALENDAR): string {
  switch (period) {
    case 'day':
      return plainDate(index);
    case 'week': {
      const start = periodStart(index, 'week', calendar);
      if (calendar.weekStartsOn !== 1) return `week from ${plainDate(start)}`;
      const { year, week } = isoWeek(start);
      return `${year} week ${week}`;
    }
    case 'weekday':
      return WEEKDAYS[index];
    case 'year':
      return yearLabel(index, calendar);
    case 'month':
      return monthLabel(index);
  }
  const first = firstMonth(index, period, calendar);
  const last = first + MONTHS_IN[period] - 1;
  const sameYear = Math.floor(first / 12) === Math.floor(last / 12);
  return `${sameYear ? monthName(first) : monthLabel(first)}–${monthLabel(last)}`;
}

const monthName = (months: number): string => MONTHS[((months % 12) + 12) % 12].slice(0, 3);
const monthLabel = (months: number): string => `${monthName(months)} ${Math.floor(months / 12)}`;

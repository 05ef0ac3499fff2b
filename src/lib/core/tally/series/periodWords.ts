import type { CalendarPeriod } from '../../table/period';

/** One period of a kind in words. */
export const PERIOD_WORDS: Record<CalendarPeriod, string> = {
  day: 'day',
  week: 'week',
  month: 'month',
  quarter: 'quarter',
  half: 'half-year',
  year: 'year',
};

/** Several periods of a kind in words. */
export const PERIODS_WORDS: Record<CalendarPeriod, string> = {
  day: 'days',
  week: 'weeks',
  month: 'months',
  quarter: 'quarters',
  half: 'half-years',
  year: 'years',
};

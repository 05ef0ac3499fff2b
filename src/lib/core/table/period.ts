import { civil, dayNumber, isoWeek, MONTHS, plainDate, weekday, WEEKDAYS } from './calendar';

/** Periods a date can be grouped by. All but weekday follow one another on the calendar. */
export const PERIODS = ['day', 'week', 'month', 'quarter', 'half', 'year', 'weekday'] as const;
export type Period = (typeof PERIODS)[number];

/**
 * The number of the period that a day falls in. Rising days give rising numbers, and neighbours
 * differ by one (weekday: 0 Monday .. 6 Sunday). Weeks are ISO 8601 weeks.
 */
export function periodOf(days: number, period: Period): number {
  switch (period) {
    case 'day':
      return days;
    case 'week':
      return Math.floor((days + 3) / 7);
    case 'weekday':
      return weekday(days);
  }
  const { year, month } = civil(days);
  switch (period) {
    case 'month':
      return year * 12 + month - 1;
    case 'quarter':
      return year * 4 + Math.floor((month - 1) / 3);
    case 'half':
      return year * 2 + (month > 6 ? 1 : 0);
    case 'year':
      return year;
  }
}

/** First day of a period; not for weekday, which has no place on the calendar. */
export function periodStart(index: number, period: Exclude<Period, 'weekday'>): number {
  switch (period) {
    case 'day':
      return index;
    case 'week':
      return index * 7 - 3;
    case 'month':
      return dayNumber(Math.floor(index / 12), (index % 12) + 1, 1);
    case 'quarter':
      return dayNumber(Math.floor(index / 4), (index % 4) * 3 + 1, 1);
    case 'half':
      return dayNumber(Math.floor(index / 2), (index % 2) * 6 + 1, 1);
    case 'year':
      return dayNumber(index, 1, 1);
  }
}

/** `Jul 2025`, `Jul–Sep 2025`, `2025 week 28`, `Saturday`. */
export function periodLabel(index: number, period: Period): string {
  switch (period) {
    case 'day':
      return plainDate(index);
    case 'week': {
      const { year, week } = isoWeek(periodStart(index, 'week'));
      return `${year} week ${week}`;
    }
    case 'month':
      return `${MONTHS[index % 12].slice(0, 3)} ${Math.floor(index / 12)}`;
    case 'quarter': {
      const first = (index % 4) * 3;
      return `${MONTHS[first].slice(0, 3)}–${MONTHS[first + 2].slice(0, 3)} ${Math.floor(index / 4)}`;
    }
    case 'half':
      return `${index % 2 ? 'Jul–Dec' : 'Jan–Jun'} ${Math.floor(index / 2)}`;
    case 'year':
      return String(index);
    case 'weekday':
      return WEEKDAYS[index];
  }
}

import { showClock, showDay } from '../../core/table/format';

const DAY_MS = 86_400_000;

/** The day of the calendar where the reader is, as a number: a day of 23 or of 25 hours is one too. */
const calendarDay = (moment: string): number => {
  const date = new Date(moment);
  return Date.UTC(date.getFullYear(), date.getMonth(), date.getDate()) / DAY_MS;
};

/** How long ago, as people say it: `today`, `yesterday`, `5 days ago`, then the date. */
export function freshness(then: string, now: string): string {
  const days = calendarDay(now) - calendarDay(then);
  if (days <= 0) return `today, ${showClock(then)}`;
  if (days === 1) return 'yesterday';
  if (days < 15) return `${days} days ago`;
  return showDay(then);
}

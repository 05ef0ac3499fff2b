import { CALENDAR_PERIODS, type Period } from '../../table/period';

/** Words that name a period to group by. */
export const PERIOD_WORDS: ReadonlyMap<string, Period> = new Map<string, Period>([
  ...CALENDAR_PERIODS.flatMap((period) => [
    [period, period] as const,
    [`${period}s`, period] as const,
  ]),
  ['monthly', 'month'],
  ['yearly', 'year'],
  ['annual', 'year'],
  ['annually', 'year'],
  ['weekly', 'week'],
  ['daily', 'day'],
  ['date', 'day'],
  ['quarterly', 'quarter'],
  ['weekday', 'weekday'],
  ['weekdays', 'weekday'],
]);

import { readClock } from '../read/dates';
import { clockTime, plainDate } from '../table/calendar';
import type { ColumnType } from '../table/column';
import { DATE_FORMS, daysCovered } from './point';

/** What a text typed where a date or time is asked for is taken as, in words; `wrong` where it is none. */
export function takenAs(text: string, type: ColumnType): { words: string; wrong: boolean } {
  const typed = text.trim();
  if (typed === '') return { words: '', wrong: false };
  if (type === 'time') {
    const clock = readClock(typed);
    return Number.isNaN(clock)
      ? { words: 'Write 08:30, or 8:30 pm', wrong: true }
      : { words: clockTime(clock), wrong: false };
  }
  const days = daysCovered(typed);
  if (days)
    return {
      words:
        days.from === days.to
          ? plainDate(days.from)
          : `${plainDate(days.from)} to ${plainDate(days.to)}`,
      wrong: false,
    };
  // A date with a time is taken as it stands; whether it can be read shows with its records.
  if (type === 'datetime' && /^\d{4}-\d{2}-\d{2}[T ]\d/.test(typed))
    return { words: '', wrong: false };
  return { words: `Write ${DATE_FORMS}`, wrong: true };
}

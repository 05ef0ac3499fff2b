import { noDateFacts, readClock, readDate, readDateTime } from '../../read/dates';
import type { ScalarType } from '../../table/column';

/** A figure written in full (ISO 8601, yes or no) as the number its type holds; null where it is none. */
export function readIsoFigure(type: ScalarType, text: string): number | null {
  const value =
    type === 'date'
      ? readDate(text, 'ymd', noDateFacts())
      : type === 'datetime'
        ? readDateTime(text, 'ymd', 'clock', noDateFacts())
        : type === 'time'
          ? readClock(text)
          : type === 'yesno'
            ? Number(text === 'yes')
            : Number(text);
  return Number.isNaN(value) ? null : value;
}

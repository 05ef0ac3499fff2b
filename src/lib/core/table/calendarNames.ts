import { MONTHS, WEEKDAYS } from './calendar';

/** Longer dictionaries hold other texts as well. */
const MOST = 60;

/** Places of names, in full and by their first three letters, in small letters. */
const placesOf = (names: readonly string[]): ReadonlyMap<string, number> =>
  new Map([
    ...names.flatMap((name, k) => [
      [name.toLowerCase(), k] as const,
      [name.slice(0, 3).toLowerCase(), k] as const,
    ]),
    // As some write them.
    ...(names === MONTHS ? ([['sept', 8]] as const) : []),
    ...(names === WEEKDAYS
      ? ([
          ['tues', 1],
          ['thur', 3],
          ['thurs', 3],
        ] as const)
      : []),
  ]);

const CALENDARS = [placesOf(MONTHS), placesOf(WEEKDAYS)];

/**
 * The place of each text on the calendar where all of them are months, or all weekdays, whatever their case and outer
 * spaces; null where one is not, or where there is only one.
 * @example calendarPlaces(['Mar', 'Jan', 'Feb']) // [2, 0, 1]
 * @example calendarPlaces(['May', 'June', 'April shower']) // null
 */
export function calendarPlaces(texts: readonly string[]): number[] | null {
  if (texts.length < 2 || texts.length > MOST) return null;
  for (const calendar of CALENDARS) {
    const places = texts.map((text) => calendar.get(text.trim().toLowerCase().replace(/\.$/, '')));
    const found = places.filter((place) => place !== undefined);
    if (found.length === texts.length) return found;
  }
  return null;
}

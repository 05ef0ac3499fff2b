/**
 * The proleptic Gregorian calendar on day numbers (days since 1970-01-01), years 1..9999.
 * Conversions after Howard Hinnant, "chrono-compatible low-level date algorithms".
 */
export interface CivilDate {
  readonly year: number;
  /** 1..12 */
  readonly month: number;
  /** 1..31 */
  readonly day: number;
}

export const DAY_MS = 86_400_000;

export function dayNumber(year: number, month: number, day: number): number {
  const y = month <= 2 ? year - 1 : year;
  const era = Math.floor(y / 400);
  const yearOfEra = y - era * 400;
  const dayOfYear = Math.floor((153 * (month + (month > 2 ? -3 : 9)) + 2) / 5) + day - 1;
  const dayOfEra =
    yearOfEra * 365 + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100) + dayOfYear;
  return era * 146097 + dayOfEra - 719468;
}

export function civil(days: number): CivilDate {
  const z = days + 719468;
  const era = Math.floor(z / 146097);
  const dayOfEra = z - era * 146097;
  const yearOfEra = Math.floor(
    (dayOfEra -
      Math.floor(dayOfEra / 1460) +
      Math.floor(dayOfEra / 36524) -
      Math.floor(dayOfEra / 146096)) /
      365,
  );
  const dayOfYear =
    dayOfEra - (365 * yearOfEra + Math.floor(yearOfEra / 4) - Math.floor(yearOfEra / 100));
  const mp = Math.floor((5 * dayOfYear + 2) / 153);
  const month = mp < 10 ? mp + 3 : mp - 9;
  return {
    year: yearOfEra + era * 400 + (month <= 2 ? 1 : 0),
    month,
    day: dayOfYear - Math.floor((153 * mp + 2) / 5) + 1,
  };
}

export const isLeap = (year: number): boolean =>
  (year % 4 === 0 && year % 100 !== 0) || year % 400 === 0;

export const daysInMonth = (year: number, month: number): number =>
  month === 2 ? (isLeap(year) ? 29 : 28) : [4, 6, 9, 11].includes(month) ? 30 : 31;

/** True for a date that stands in the calendar, years 1..9999. */
export const isCivil = (year: number, month: number, day: number): boolean =>
  year >= 1 &&
  year <= 9999 &&
  month >= 1 &&
  month <= 12 &&
  day >= 1 &&
  day <= daysInMonth(year, month);

/** 0 Monday .. 6 Sunday (ISO 8601 order). */
export const weekday = (days: number): number => (((days + 3) % 7) + 7) % 7;

/** ISO 8601 week: the year it belongs to and its number 1..53. */
export function isoWeek(days: number): { year: number; week: number } {
  const thursday = days - weekday(days) + 3;
  const { year } = civil(thursday);
  return { year, week: Math.floor((thursday - dayNumber(year, 1, 1)) / 7) + 1 };
}

/** The Monday of an ISO 8601 week; null where the year has no such week. */
export function isoWeekStart(year: number, week: number): number | null {
  const fourth = dayNumber(year, 1, 4);
  const start = fourth - weekday(fourth) + 7 * (week - 1);
  const found = isoWeek(start);
  return found.year === year && found.week === week ? start : null;
}

export const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
] as const;

export const WEEKDAYS = [
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
  'Sunday',
] as const;

const two = (n: number): string => (n < 10 ? `0${n}` : `${n}`);

/** `2025-07-12`; years are written with four digits. */
export function isoDate(days: number): string {
  const { year, month, day } = civil(days);
  return `${String(year).padStart(4, '0')}-${two(month)}-${two(day)}`;
}

/** The day that `2025-07-12` writes; the text is known to be a date. */
export function dayOfIso(text: string): number {
  const [year, month, day] = text.split('-').map(Number);
  return dayNumber(year, month, day);
}

/** `08:10`, with seconds and milliseconds only where there are any. */
export function clockTime(ms: number): string {
  const whole = Math.floor(ms / 1000);
  const text = `${two(Math.floor(whole / 3600))}:${two(Math.floor(whole / 60) % 60)}`;
  const seconds = whole % 60;
  const rest = ms - whole * 1000;
  if (!seconds && !rest) return text;
  return rest
    ? `${text}:${two(seconds)}.${String(Math.round(rest)).padStart(3, '0')}`
    : `${text}:${two(seconds)}`;
}

/** `2025-07-12T08:10`. */
export function isoDateTime(ms: number): string {
  const days = Math.floor(ms / DAY_MS);
  return `${isoDate(days)}T${clockTime(ms - days * DAY_MS)}`;
}

/** The first and the last day that a date can be: those of years 1 to 9999. */
export const FIRST_DAY = dayNumber(1, 1, 1);
export const LAST_DAY = dayNumber(9999, 12, 31);

/** `Sat 12 Jul 2025`: how dates stand on the page. */
export function plainDate(days: number): string {
  const { year, month, day } = civil(days);
  return `${WEEKDAYS[weekday(days)].slice(0, 3)} ${day} ${MONTHS[month - 1].slice(0, 3)} ${year}`;
}

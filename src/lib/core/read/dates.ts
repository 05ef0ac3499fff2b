import { DAY_MS, dayNumber, isCivil, MONTHS, weekday, WEEKDAYS } from '../table/calendar';
import type { Grain } from '../table/column';
import type { DateOrder } from './recipe';

/** What the dates of a column showed about the order of day and month. */
export interface DateFacts {
  /** Values of three numbers without the year in front by its four digits: `03/04/2025`, `24-01-15`. */
  numeric: number;
  /** Those of them that are another day in another order. */
  undecided: number;
  /** The orders in which all of them are dates: bits of ORDER_BITS. */
  orders: number;
  grains: Record<Grain, number>;
  offsets: Set<string>;
  /** Times without an offset. */
  withoutOffset: number;
  /** Times finer than a millisecond. */
  finer: number;
}

const ORDER_BITS: Record<DateOrder, number> = { dmy: 1, mdy: 2, ymd: 4 };

/** Whether nothing that was read tells which of the three numbers is the day. */
export const isUndecided = ({ undecided, orders }: DateFacts): boolean =>
  undecided > 0 && (orders & (orders - 1)) !== 0;

/** Longer texts are no dates or times, and are not looked at: patterns try their places in vain. */
const LONGEST = 48;

export const noDateFacts = (): DateFacts => ({
  numeric: 0,
  undecided: 0,
  orders: ORDER_BITS.dmy | ORDER_BITS.mdy | ORDER_BITS.ymd,
  grains: { day: 0, month: 0, quarter: 0, year: 0 },
  offsets: new Set(),
  withoutOffset: 0,
  finer: 0,
});

const monthOf = (word: string): number => {
  if (word.length < 3) return 0;
  const low = word.toLowerCase().replace(/\.$/, '');
  return (
    MONTHS.findIndex(
      (m) => m.toLowerCase().startsWith(low) || (low === 'sept' && m === 'September'),
    ) + 1
  );
};

/** 0 Monday .. 6 Sunday; -1 where the word is none. */
const weekdayOf = (word: string): number =>
  WEEKDAYS.findIndex((day) => day.toLowerCase().startsWith(word.toLowerCase()));

/** Two-digit years belong to 1970..2069. */
const fullYear = (text: string): number => {
  const n = Number(text);
  return text.length > 2 ? n : n >= 70 ? 1900 + n : 2000 + n;
};

function checked(year: number, month: number, day: number): number {
  return isCivil(year, month, day) ? dayNumber(year, month, day) : NaN;
}

/** The number that `count` digits from `at` write; NaN where one of them is no digit. */
function digits(text: string, at: number, count: number): number {
  let n = 0;
  for (let i = at; i < at + count; i++) {
    const d = text.charCodeAt(i) - 48;
    if (!(d >= 0 && d <= 9)) return NaN;
    n = n * 10 + d;
  }
  return n;
}

/** `yyyy-mm-dd` without a pattern; NaN for any other form. */
function readIsoDate(text: string): number {
  if (text.length !== 10 || text.charCodeAt(4) !== 45 || text.charCodeAt(7) !== 45) return NaN;
  return checked(digits(text, 0, 4), digits(text, 5, 2), digits(text, 8, 2));
}

/**
 * A date as days since 1970-01-01, or NaN. Forms: ISO 8601; day-month-year and month-day-year
 * with `/ . -`; month names; year-month; year and quarter; year alone; compact yyyymmdd.
 * @param order decides `03/04/2025`; values over 12 that contradict it are not read
 */
export function readDate(text: string, order: DateOrder, facts: DateFacts): number {
  const iso = readIsoDate(text);
  if (iso === iso) {
    facts.grains.day++;
    return iso;
  }
  if (text.length > LONGEST) return NaN;
  const named = /^([A-Za-z]{3,9})\.?,?\s+(\S.*)$/.exec(text);
  const weekdayNamed = named ? weekdayOf(named[1]) : -1;
  if (named && weekdayNamed >= 0) {
    // A weekday that is not the date's is a slip in one of the two: which, nobody knows.
    const days = readDate(named[2], order, facts);
    return weekday(days) === weekdayNamed ? days : NaN;
  }
  let m = /^(\d{1,4})([-/.])(\d{1,2})\2(\d{1,4})$/.exec(text);
  if (m) return fromNumbers(m[1], m[3], m[4], order, facts);
  m = /^(\d{4})(\d{2})(\d{2})$/.exec(text);
  if (m) return graded(checked(+m[1], +m[2], +m[3]), 'day', facts);
  m = /^(\d{4})[-/.](\d{1,2})$/.exec(text) ?? swap(/^(\d{1,2})[/.](\d{4})$/.exec(text));
  if (m) return graded(checked(+m[1], +m[2], 1), 'month', facts);
  m = /^(\d{4})[-/ ]?[Qq]([1-4])$/.exec(text) ?? swap(/^[Qq]([1-4])[-/ ]?(\d{4})$/.exec(text));
  if (m) return graded(checked(+m[1], +m[2] * 3 - 2, 1), 'quarter', facts);
  m = /^(\d{4})$/.exec(text);
  if (m) return graded(checked(+m[1], 1, 1), 'year', facts);
  return fromMonthName(text, facts);
}

const swap = (m: RegExpExecArray | null): RegExpExecArray | null => {
  if (m) [m[1], m[2]] = [m[2], m[1]];
  return m;
};

function graded(days: number, grain: Grain, facts: DateFacts): number {
  if (days === days) facts.grains[grain]++;
  return days;
}

function fromNumbers(a: string, b: string, c: string, order: DateOrder, facts: DateFacts): number {
  if (a.length > 2) return graded(checked(+a, +b, +c), 'day', facts);
  const yearLast = c.length === 2 || c.length === 4;
  const days: Record<DateOrder, number> = {
    dmy: yearLast ? checked(fullYear(c), +b, +a) : NaN,
    mdy: yearLast ? checked(fullYear(c), +a, +b) : NaN,
    ymd: c.length <= 2 && a.length === 2 ? checked(fullYear(a), +b, +c) : NaN,
  };
  let orders = 0;
  const different = new Set<number>();
  for (const one of ['dmy', 'mdy', 'ymd'] as const)
    if (days[one] === days[one]) {
      orders |= ORDER_BITS[one];
      different.add(days[one]);
    }
  if (orders === 0) return NaN;
  facts.numeric++;
  facts.orders &= orders;
  if (different.size > 1) facts.undecided++;
  return graded(days[order], 'day', facts);
}

function fromMonthName(text: string, facts: DateFacts): number {
  const m = /^(\d{1,2})(?:st|nd|rd|th)?[\s\-/.]+([A-Za-z]{3,9}\.?)[\s\-/.,]+(\d{4}|\d{2})$/.exec(
    text,
  );
  if (m) return graded(checked(fullYear(m[3]), monthOf(m[2]), +m[1]), 'day', facts);
  const us = /^([A-Za-z]{3,9}\.?)\s+(\d{1,2})(?:st|nd|rd|th)?,?\s+(\d{4})$/.exec(text);
  if (us) return graded(checked(+us[3], monthOf(us[1]), +us[2]), 'day', facts);
  const monthYear = /^([A-Za-z]{3,9}\.?)[\s\-/]+(\d{4})$/.exec(text);
  if (monthYear) return graded(checked(+monthYear[2], monthOf(monthYear[1]), 1), 'month', facts);
  return NaN;
}

/**
 * `08:10`, `8:10:05`, `08:10:05.250`, `8:10 pm`: milliseconds since midnight, or NaN. What is finer is cut off,
 * not rounded: 23:59:59.9996 stays on its day.
 */
export function readClock(text: string, facts?: Pick<DateFacts, 'finer'>): number {
  if (text.length === 5 && text.charCodeAt(2) === 58) {
    const hours = digits(text, 0, 2);
    const minutes = digits(text, 3, 2);
    if (hours < 24 && minutes < 60) return (hours * 60 + minutes) * 60_000;
  }
  if (text.length > LONGEST) return NaN;
  const m = /^(\d{1,2}):(\d{2})(?::(\d{2})(?:[.,](\d{1,9}))?)?\s*([aApP]\.?[mM]\.?)?$/.exec(text);
  if (!m) return NaN;
  let hour = +m[1];
  if (m[5]) {
    if (hour < 1 || hour > 12) return NaN;
    hour = (hour % 12) + (m[5][0].toLowerCase() === 'p' ? 12 : 0);
  }
  const minute = +m[2];
  const second = +(m[3] ?? 0);
  const fraction = Number((m[4] ?? '').slice(0, 3).padEnd(3, '0'));
  if (facts && /[1-9]/.test((m[4] ?? '').slice(3))) facts.finer++;
  if (hour > 23 || minute > 59 || second > 59) return NaN;
  return ((hour * 60 + minute) * 60 + second) * 1000 + fraction;
}

/**
 * Date and time as milliseconds of the clock written, or of UTC where the zone is `utc`: a text without an
 * offset is then none, since nobody can say which time of UTC it was. A date alone is its midnight.
 */
export function readDateTime(
  text: string,
  order: DateOrder,
  zone: 'clock' | 'utc',
  facts: DateFacts,
): number {
  if (text.length > LONGEST) return NaN;
  const m = /^(.{6,}?)(?:[T]|,?\s+)(\d{1,2}:\d{2}.*?)\s*(Z|[+-]\d{2}:?\d{2}|[+-]\d{2})?$/.exec(
    text,
  );
  if (!m) return zone === 'utc' ? NaN : readDate(text, order, facts) * DAY_MS;
  const days = readDate(m[1], order, facts);
  const clock = readClock(m[2], facts);
  const written = days * DAY_MS + clock;
  if (!m[3]) {
    if (written === written) facts.withoutOffset++;
    return zone === 'utc' ? NaN : written;
  }
  facts.offsets.add(m[3]);
  return written - (zone === 'utc' ? offsetMs(m[3]) : 0);
}

function offsetMs(offset: string): number {
  if (offset === 'Z') return 0;
  const digits = offset.replace(/\D/g, '').padEnd(4, '0');
  const ms = (Number(digits.slice(0, 2)) * 60 + Number(digits.slice(2))) * 60_000;
  return offset.startsWith('-') ? -ms : ms;
}

/** `+01:00` → `UTC+01:00`. */
export const offsetName = (offset: string): string => (offset === 'Z' ? 'UTC' : `UTC${offset}`);

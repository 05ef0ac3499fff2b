import { civil, daysInMonth, dayNumber, DAY_MS, FIRST_DAY, LAST_DAY } from '../table/calendar';
import type { ExtractField, IntervalUnit } from './ast';

/**
 * Dates and times in expressions. A date is a day number; a date with time is milliseconds since
 * 1970; a time is milliseconds since midnight.
 */
export type MomentType = 'date' | 'datetime' | 'time';

export const UNIT_MS: Record<'DAY' | 'HOUR' | 'MINUTE' | 'SECOND', number> = {
  DAY: DAY_MS,
  HOUR: 3_600_000,
  MINUTE: 60_000,
  SECOND: 1000,
};

/** A day moved by months: the same day of the month, or the month's last where it is shorter. */
export function addMonths(day: number, months: number): number {
  const { year, month, day: ofMonth } = civil(day);
  const index = year * 12 + month - 1 + months;
  const y = Math.floor(index / 12);
  const m = (index % 12) + 1;
  if (y < 1 || y > 9999) return NaN;
  return dayNumber(y, m, Math.min(ofMonth, daysInMonth(y, m)));
}

/** NaN outside the years 1..9999; times go round the clock. */
export function shifted(type: MomentType, value: number, months: number, units: number): number {
  if (type === 'time') return (((value + units) % DAY_MS) + DAY_MS) % DAY_MS;
  const perDay = type === 'date' ? 1 : DAY_MS;
  const day = Math.floor(value / perDay);
  const moved = months ? addMonths(day, months) * perDay + (value - day * perDay) : value;
  const out = moved + units;
  return out >= FIRST_DAY * perDay && out < (LAST_DAY + 1) * perDay ? out : NaN;
}

/** left − right in a unit: whole months and years that have passed; the rest with a fraction. */
export function difference(
  type: MomentType,
  left: number,
  right: number,
  unit: IntervalUnit,
): number {
  if (unit !== 'YEAR' && unit !== 'MONTH')
    return ((left - right) * (type === 'date' ? DAY_MS : 1)) / UNIT_MS[unit];
  const months = monthsBetween(type, left, right);
  return unit === 'MONTH' ? months : Math.trunc(months / 12);
}

function monthsBetween(type: MomentType, left: number, right: number): number {
  if (left < right) return -monthsBetween(type, right, left) + 0;
  const perDay = type === 'date' ? 1 : DAY_MS;
  const a = civil(Math.floor(left / perDay));
  const b = civil(Math.floor(right / perDay));
  let months = (a.year - b.year) * 12 + a.month - b.month;
  while (months > 0 && shifted(type, right, months, 0) > left) months--;
  return months;
}

export function extracted(type: MomentType, value: number, field: ExtractField): number {
  const day = type === 'date' ? value : Math.floor(value / DAY_MS);
  const ms = type === 'date' ? 0 : value - day * DAY_MS;
  switch (field) {
    case 'YEAR':
      return civil(day).year;
    case 'MONTH':
      return civil(day).month;
    case 'DAY':
      return civil(day).day;
    case 'HOUR':
      return Math.floor(ms / UNIT_MS.HOUR);
    case 'MINUTE':
      return Math.floor(ms / UNIT_MS.MINUTE) % 60;
    case 'SECOND':
      return (ms % UNIT_MS.MINUTE) / 1000;
  }
}

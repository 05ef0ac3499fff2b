import { relativeChange } from '../../answer/result';
import { civil, dayNumber, isCivil, isoWeek } from '../../../table/calendar';
import {
  PERIODS_IN_YEAR,
  periodOf,
  periodStart,
  type Calendar,
  type CalendarPeriod,
} from '../../../table/period';

/**
 * What follows from a series of periods (calculations, section 9). Values are by period; NaN: none.
 */

/** Each value less the one it is set against. */
export const differences = (values: Float64Array, against: Float64Array): Float64Array =>
  values.map((b, k) => b - against[k]);

/** (b − a) ÷ |a|; none where a is 0 or none. */
export const relativeChanges = (values: Float64Array, against: Float64Array): Float64Array =>
  values.map((b, k) => relativeChange(against[k], b));

/** The values of other periods; none where there is no such period. */
export const valuesAt = (values: Float64Array, place: (k: number) => number): Float64Array =>
  values.map((_, k) => at(values, place(k)));

const at = (values: Float64Array, k: number): number => (k >= 0 ? (values[k] ?? NaN) : NaN);

/** Totals from the first period; a period that is none adds nothing. `restart(k)`: begin anew there. */
export function runningTotals(
  values: Float64Array,
  restart: (k: number) => boolean = () => false,
): Float64Array {
  let sum = 0;
  let lost = 0;
  return values.map((v, k) => {
    if (k > 0 && restart(k)) sum = lost = 0;
    if (v === v) {
      const t = sum + v;
      const b = t - sum;
      lost += sum - (t - b) + (v - b);
      sum = t;
    }
    return sum + lost;
  });
}

/**
 * Mean of k periods, none until k are there, and none where one of them is none. Centred on the
 * period; an even k takes k + 1 periods with half of the outer two (the 2×k form).
 */
export function movingAverage(
  values: Float64Array,
  k: number,
  place: 'trailing' | 'centred',
): Float64Array {
  const even = place === 'centred' && k % 2 === 0;
  const size = even ? k + 1 : k;
  const ahead = place === 'centred' ? Math.floor(size / 2) : 0;
  return values.map((_, n) => {
    const from = n + ahead - size + 1;
    if (from < 0 || n + ahead >= values.length) return NaN;
    let sum = 0;
    for (let j = 0; j < size; j++)
      sum += values[from + j] * (even && (j === 0 || j === size - 1) ? 0.5 : 1);
    return sum / k;
  });
}

/** Distances of the periods a moving average stands on. */
export function movingReach(k: number, place: 'trailing' | 'centred'): number[] {
  const size = place === 'centred' && k % 2 === 0 ? k + 1 : k;
  const ahead = place === 'centred' ? Math.floor(size / 2) : 0;
  return Array.from({ length: size }, (_, j) => j + ahead - size + 1);
}

/** Each value with the base's as 100; none where the base is 0 or none. */
export const indexTo = (values: Float64Array, base: number): Float64Array =>
  values.map((v) => (at(values, base) === 0 ? NaN : (v / at(values, base)) * 100));

/**
 * The same period a year before, as a number of `periodOf`; NaN where there is none (29 February, a
 * 53rd week). Weeks that start elsewhere than ISO 8601's: 52 weeks before.
 */
export function yearBefore(index: number, period: CalendarPeriod, calendar: Calendar): number {
  const perYear = PERIODS_IN_YEAR[period];
  if (perYear !== null) return index - perYear;
  if (period === 'day') {
    const { year, month, day } = civil(index);
    return isCivil(year - 1, month, day) ? dayNumber(year - 1, month, day) : NaN;
  }
  if (calendar.weekStartsOn !== 1) return index - 52;
  const { year, week } = isoWeek(periodStart(index, 'week'));
  const before = periodOf(dayNumber(year - 1, 1, 4), 'week') + week - 1;
  return isoWeek(periodStart(before, 'week')).year === year - 1 ? before : NaN;
}

/** The year a period belongs to, for totals to date. */
export function yearOf(index: number, period: CalendarPeriod, calendar: Calendar): number {
  if (period === 'year') return index;
  const start = periodStart(index, period, calendar);
  if (period === 'week' && calendar.weekStartsOn === 1 && calendar.yearStartsIn === 1)
    return isoWeek(start).year;
  return periodOf(start, 'year', calendar);
}

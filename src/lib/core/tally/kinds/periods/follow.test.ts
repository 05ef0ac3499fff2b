import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayNumber, isoWeek } from '../../../table/calendar';
import {
  periodEnd,
  periodLabel,
  periodOf,
  periodStart,
  USUAL_CALENDAR,
  type Calendar,
} from '../../../table/period';
import {
  differences,
  indexTo,
  movingAverage,
  movingReach,
  relativeChanges,
  runningTotals,
  valuesAt,
  yearBefore,
} from './follow';

const of = (...values: number[]) => Float64Array.from(values);
const list = (values: Float64Array) => Array.from(values, (v) => (v !== v ? null : v));
const before = (k: number): number => k - 1;

describe('what follows from a series', () => {
  it('differences and changes: none where there is nothing before, or it is 0 or none', () => {
    const of4 = of(1, 4, NaN, 2);
    expect(list(differences(of4, valuesAt(of4, before)))).toEqual([null, 3, null, null]);
    const signs = of(-4, -2, 0, 5);
    expect(list(relativeChanges(signs, valuesAt(signs, before)))).toEqual([null, 0.5, 1, null]);
  });

  it('totals pass over what is none, and begin anew', () => {
    expect(list(runningTotals(of(1, NaN, 3)))).toEqual([1, 1, 4]);
    expect(list(runningTotals(of(1, 2, 3, 4), (k) => k === 2))).toEqual([1, 3, 3, 7]);
  });

  it('moving averages: trailing, centred, and the 2×k form', () => {
    const y = of(1, 2, 6, 5, 4);
    expect(list(movingAverage(y, 3, 'trailing'))).toEqual([null, null, 3, 13 / 3, 5]);
    expect(list(movingAverage(y, 3, 'centred'))).toEqual([null, 3, 13 / 3, 5, null]);
    // (½·1 + 2 + 6 + 5 + ½·4) ÷ 4.
    expect(list(movingAverage(y, 4, 'centred'))).toEqual([null, null, 15.5 / 4, null, null]);
    expect(movingReach(4, 'centred')).toEqual([-2, -1, 0, 1, 2]);
    expect(movingReach(3, 'trailing')).toEqual([-2, -1, 0]);
  });

  it('an index on 0, or beyond the series, is none', () => {
    expect(list(indexTo(of(4, 2), 0))).toEqual([100, 50]);
    expect(list(indexTo(of(0, 2), 0))).toEqual([null, null]);
    expect(list(indexTo(of(4, 2), 7))).toEqual([null, null]);
  });

  it('a year before: the same month, no 29 February, no 53rd week', () => {
    const day = (y: number, m: number, d: number) => dayNumber(y, m, d);
    expect(yearBefore(2025 * 12 + 6, 'month', USUAL_CALENDAR)).toBe(2024 * 12 + 6);
    expect(yearBefore(day(2025, 7, 12), 'day', USUAL_CALENDAR)).toBe(day(2024, 7, 12));
    expect(yearBefore(day(2024, 2, 29), 'day', USUAL_CALENDAR)).toBeNaN();
    // 2020 has 53 ISO weeks, 2019 and 2021 have 52.
    const week = (y: number, m: number, d: number) => periodOf(day(y, m, d), 'week');
    expect(yearBefore(week(2020, 12, 31), 'week', USUAL_CALENDAR)).toBeNaN();
    const found = yearBefore(week(2021, 1, 4), 'week', USUAL_CALENDAR);
    expect(isoWeek(periodStart(found, 'week'))).toEqual({ year: 2020, week: 1 });
  });
});

describe('calendars that start anywhere', () => {
  const calendar = fc.record<Calendar>({
    yearStartsIn: fc.integer({ min: 1, max: 12 }),
    yearNamedBy: fc.constantFrom('start' as const, 'end' as const),
    weekStartsOn: fc.integer({ min: 1, max: 7 }),
  });
  const period = fc.constantFrom('day', 'week', 'month', 'quarter', 'half', 'year' as const);

  it('every day lies between the ends of its period, and periods touch', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: dayNumber(2, 1, 1), max: dayNumber(9998, 12, 31) }),
        period,
        calendar,
        (day, of, by) => {
          const index = periodOf(day, of, by);
          expect(periodStart(index, of, by)).toBeLessThanOrEqual(day);
          expect(periodEnd(index, of, by)).toBeGreaterThanOrEqual(day);
          expect(periodOf(periodEnd(index, of, by) + 1, of, by)).toBe(index + 1);
        },
      ),
    );
  });

  it('names years by the year they start or end in, and halves across two', () => {
    const july: Calendar = { yearStartsIn: 7, yearNamedBy: 'end', weekStartsOn: 7 };
    const day = dayNumber(2025, 2, 1);
    expect(periodLabel(periodOf(day, 'year', july), 'year', july)).toBe('2025');
    const october: Calendar = { ...july, yearStartsIn: 10, yearNamedBy: 'start' };
    expect(periodLabel(periodOf(day, 'year', october), 'year', october)).toBe('2024/25');
    const eve = periodOf(dayNumber(2000, 9, 30), 'year', october);
    expect(periodLabel(eve, 'year', october)).toBe('1999/00');
    expect(periodLabel(periodOf(day, 'half', october), 'half', october)).toBe('Oct 2024–Mar 2025');
    expect(periodLabel(periodOf(day, 'week', july), 'week', july)).toBe(
      'week from Sun 26 Jan 2025',
    );
  });
});

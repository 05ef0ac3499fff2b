import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  civil,
  clockTime,
  dayNumber,
  isCivil,
  isoDate,
  isoDateTime,
  isoWeek,
  plainDate,
  weekday,
} from './calendar';
import { periodLabel, periodOf, periodStart, type Period } from './period';

describe('the calendar', () => {
  it('agrees with the engine’s own calendar from year 1 to 9999', () => {
    fc.assert(
      fc.property(fc.integer({ min: dayNumber(1, 1, 1), max: dayNumber(9999, 12, 31) }), (days) => {
        const date = new Date(0);
        date.setUTCDate(1 + days);
        const { year, month, day } = civil(days);
        expect([year, month, day]).toEqual([
          date.getUTCFullYear(),
          date.getUTCMonth() + 1,
          date.getUTCDate(),
        ]);
        expect(dayNumber(year, month, day)).toBe(days);
        expect((weekday(days) + 1) % 7).toBe(date.getUTCDay());
      }),
    );
  });

  it('knows leap days', () => {
    expect(isCivil(2024, 2, 29)).toBe(true);
    expect(isCivil(2023, 2, 29)).toBe(false);
    expect(isCivil(1900, 2, 29)).toBe(false);
    expect(isCivil(2000, 2, 29)).toBe(true);
    expect(isCivil(0, 1, 1)).toBe(false);
    expect(isCivil(10000, 1, 1)).toBe(false);
  });

  // Turns of the year as ISO 8601 counts weeks.
  it.each([
    [2020, 12, 31, 2020, 53],
    [2021, 1, 3, 2020, 53],
    [2021, 1, 4, 2021, 1],
    [2008, 12, 29, 2009, 1],
    [2010, 1, 3, 2009, 53],
    [2024, 12, 30, 2025, 1],
  ])('puts %i-%i-%i in week %i/%i', (y, m, d, year, week) => {
    expect(isoWeek(dayNumber(y, m, d))).toEqual({ year, week });
  });

  it('writes dates and times', () => {
    const day = dayNumber(2025, 7, 12);
    expect(isoDate(day)).toBe('2025-07-12');
    expect(plainDate(day)).toBe('Sat 12 Jul 2025');
    expect(isoDate(dayNumber(1, 1, 1))).toBe('0001-01-01');
    expect(clockTime(8 * 3600_000 + 600_000)).toBe('08:10');
    expect(clockTime(1_500)).toBe('00:00:01.500');
    expect(isoDateTime(-1)).toBe('1969-12-31T23:59:59.999');
  });
});

describe('periods', () => {
  const PERIODS: Exclude<Period, 'weekday'>[] = ['day', 'week', 'month', 'quarter', 'half', 'year'];

  it('hold the day they were found by, and neighbours follow without a gap', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -700_000, max: 2_900_000 }),
        fc.constantFrom(...PERIODS),
        (day, period) => {
          const index = periodOf(day, period);
          expect(periodStart(index, period)).toBeLessThanOrEqual(day);
          expect(periodStart(index + 1, period)).toBeGreaterThan(day);
          expect(periodOf(periodStart(index + 1, period) - 1, period)).toBe(index);
        },
      ),
    );
  });

  it('are named', () => {
    const day = dayNumber(2026, 2, 3);
    expect(periodLabel(periodOf(day, 'month'), 'month')).toBe('Feb 2026');
    expect(periodLabel(periodOf(day, 'quarter'), 'quarter')).toBe('Jan–Mar 2026');
    expect(periodLabel(periodOf(day, 'half'), 'half')).toBe('Jan–Jun 2026');
    expect(periodLabel(periodOf(day, 'week'), 'week')).toBe('2026 week 6');
    expect(periodLabel(periodOf(day, 'weekday'), 'weekday')).toBe('Tuesday');
  });
});

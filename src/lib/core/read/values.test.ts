import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { dayNumber, isoDate } from '../table/calendar';
import { noDateFacts, readClock, readDate, readDateTime } from './dates';
import { noNumberFacts, numberReader, unitBehind, type NumberStyle } from './numbers';
import { readYesNo } from './yesno';

const reader = (style: Partial<NumberStyle> = {}) =>
  numberReader({ thousands: '', decimal: '.', unit: '', ...style }, noNumberFacts());

describe('numbers as files write them', () => {
  it.each([
    ['12', {}, 12],
    ['-3.50', {}, -3.5],
    ['+7', {}, 7],
    ['(1,200)', { thousands: ',' }, -1200],
    ['1,234,567.89', { thousands: ',' }, 1234567.89],
    ['1.234,5', { thousands: '.', decimal: ',' }, 1234.5],
    ['1 234', { thousands: ' ' }, 1234],
    ['1\u2009234', { thousands: ' ' }, 1234],
    ["1'234", { thousands: "'" }, 1234],
    ['12 %', {}, 0.12],
    ['12.5%', {}, 0.125],
    ['£1,200.50', { thousands: ',' }, 1200.5],
    ['-£5', {}, -5],
    ['1.5e3', {}, 1500],
    ['14 min', { unit: 'min' }, 14],
    ['.5', {}, 0.5],
    ['−4', {}, -4],
  ] as const)('%s', (text, style, value) => {
    expect(reader(style)(text)).toBe(value);
  });

  it.each([
    '14 min',
    '1,2',
    '12,34',
    '1,2345',
    '',
    '-',
    'abc',
    '1.2.3',
    '--5',
    '1e999',
    '0x10',
    '12 34',
  ])('does not read %j as a number', (text) => {
    expect(reader({ thousands: ',' })(text)).toBeNaN();
  });

  it('reads every decimal to the nearest double', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -(10 ** 15), max: 10 ** 15 }),
        fc.integer({ min: 0, max: 20 }),
        (whole, places) => {
          const digits = String(Math.abs(whole)).padStart(places + 1, '0');
          const text = `${whole < 0 ? '-' : ''}${places ? `${digits.slice(0, -places)}.${digits.slice(-places)}` : digits}`;
          expect(reader()(text)).toBe(Number(text));
        },
      ),
    );
  });

  it('finds the unit behind a number', () => {
    expect(unitBehind('14 min')).toBe('min');
    expect(unitBehind('3.5kn')).toBe('kn');
    expect(unitBehind('12')).toBe('');
    expect(unitBehind('about 12 min')).toBe('');
  });
});

describe('dates and times as files write them', () => {
  const day = dayNumber(2025, 4, 3);
  it.each([
    ['2025-04-03', 'ymd', day],
    ['2025/4/3', 'ymd', day],
    ['20250403', 'ymd', day],
    ['3.4.2025', 'dmy', day],
    ['03/04/25', 'dmy', day],
    ['04/03/2025', 'mdy', day],
    ['3 Apr 2025', 'dmy', day],
    ['3rd April 2025', 'dmy', day],
    ['Apr 3, 2025', 'mdy', day],
    ['03-Apr-25', 'dmy', day],
    ['Thu 3 Apr 2025', 'dmy', day],
    ['2025-04', 'ymd', dayNumber(2025, 4, 1)],
    ['Apr 2025', 'ymd', dayNumber(2025, 4, 1)],
    ['2025 Q2', 'ymd', dayNumber(2025, 4, 1)],
    ['Q2 2025', 'ymd', dayNumber(2025, 4, 1)],
    ['2025', 'ymd', dayNumber(2025, 1, 1)],
    ['0001-01-01', 'ymd', dayNumber(1, 1, 1)],
    ['9999-12-31', 'ymd', dayNumber(9999, 12, 31)],
  ] as const)('%s by %s', (text, order, expected) => {
    expect(readDate(text, order, noDateFacts())).toBe(expected);
  });

  it.each(['2025-02-29', '31.04.2025', '2025-13-01', 'yesterday', '1/2', '32 May 2025'])(
    '%s is no date',
    (text) => {
      expect(readDate(text, 'dmy', noDateFacts())).toBeNaN();
    },
  );

  it('reads back every date it can write', () => {
    fc.assert(
      fc.property(fc.integer({ min: dayNumber(1, 1, 1), max: dayNumber(9999, 12, 31) }), (days) => {
        expect(readDate(isoDate(days), 'ymd', noDateFacts())).toBe(days);
      }),
    );
  });

  it('reads clocks', () => {
    expect(readClock('08:10')).toBe(29_400_000);
    expect(readClock('8:10 pm')).toBe(72_600_000);
    expect(readClock('12:00 am')).toBe(0);
    expect(readClock('23:59:59.5')).toBe(86_399_500);
    for (const text of ['24:00', '12:60', '13:00 pm', 'noon', '1:2'])
      expect(readClock(text)).toBeNaN();
  });

  it('keeps the clock as written, or turns it to UTC', () => {
    const facts = noDateFacts();
    const clock = readDateTime('2025-07-12T08:10+01:00', 'ymd', 'clock', facts);
    const utc = readDateTime('2025-07-12T08:10+01:00', 'ymd', 'utc', facts);
    expect(clock - utc).toBe(3_600_000);
    expect([...facts.offsets]).toEqual(['+01:00']);
    expect(readDateTime('2025-07-12 08:10Z', 'ymd', 'utc', facts)).toBe(clock);
  });

  it('reads yes and no', () => {
    expect(['yes', 'TRUE', 'y', '1'].map(readYesNo)).toEqual([1, 1, 1, 1]);
    expect(['no', 'False', 'N', '0'].map(readYesNo)).toEqual([0, 0, 0, 0]);
    expect(readYesNo('perhaps')).toBeNaN();
  });
});

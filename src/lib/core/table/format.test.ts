import { showCell } from './cell';
import { scalarColumn } from './column';
import { describe, expect, it } from 'vitest';
import { counted, fullNumber, NumberFormat, showNumber, withUnit } from './format';

const format = (change: Partial<NumberFormat>): NumberFormat => NumberFormat.parse(change);

describe('numbers shown', () => {
  it.each([
    [1234.5, {}, 2, '1,234.50'],
    [-1234.5, { negative: 'parentheses' }, 2, '(1,234.50)'],
    [-1234.5, {}, 0, '−1,235'],
    [0.125, { style: 'percent', decimals: 1 }, 0, '12.5 %'],
    [1234567, { scale: 'million', decimals: 1 }, 0, '1.2 m'],
    [9876, { scale: 'thousand', decimals: 0 }, 0, '10 k'],
    [12.5, { style: 'currency', currency: '£', decimals: 2 }, 0, '£12.50'],
    [1234.5678, { significant: 3 }, 0, '1,230'],
    [0.0012345, { significant: 2 }, 0, '0.0012'],
    [1234567, { thousands: false }, 0, '1234567'],
    [-0.001, { decimals: 1 }, 0, '0.0'],
    [NaN, {}, 0, 'none'],
  ] as const)('%d with %j', (value, change, fallback, text) => {
    expect(showNumber(value, format(change), fallback)).toBe(text);
  });

  it('full values carry no marks', () => {
    expect(fullNumber(1234567.891)).toBe('1234567.891');
    expect(fullNumber(NaN)).toBe('');
  });

  it('counts things in words', () => {
    expect([0, 1, 2, 1020].map((n) => counted(n, 'record'))).toEqual([
      '0 records',
      '1 record',
      '2 records',
      '1,020 records',
    ]);
  });
});

describe('a column of whole numbers', () => {
  const shown = (values: number[]): string => showCell(scalarColumn('Built', 'number', values), 0);
  it('that all lie where years do is written as years are', () => {
    expect(shown([2024, 1998])).toBe('2024');
    expect(shown([2024, NaN])).toBe('2024');
    expect(shown([2024, 450])).toBe('2,024');
  });
});

describe('a number with its unit', () => {
  it.each([
    ['14', 'min', '14 min'],
    ['1,341,175', '£', '£1,341,175'],
    ['−12.50', '€', '−€12.50'],
    ['(12.50)', '£', '(£12.50)'],
    ['£3.2 m', '£', '£3.2 m'],
    ['12.3 ± 4', '$', '$12.3 ± 4'],
    ['none', '£', 'none'],
    ['7', '', '7'],
  ])('%s in “%s”', (text, unit, whole) => {
    expect(withUnit(text, unit)).toBe(whole);
  });
});

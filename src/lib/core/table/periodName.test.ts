import { describe, expect, it } from 'vitest';
import { periodNamed } from '../tally/periodNamed';
import { isoDate } from './calendar';
import { daysNamed } from './periodName';

const days = (text: string): string | null => {
  const found = daysNamed(text);
  return found && `${isoDate(found.from)} ${isoDate(found.to)}`;
};

describe('periods by their names', () => {
  it.each([
    ['2024', '2024-01-01 2024-12-31'],
    ['2024-H2', '2024-07-01 2024-12-31'],
    ['2024-Q2', '2024-04-01 2024-06-30'],
    ['2024q2', '2024-04-01 2024-06-30'],
    ['2024-02', '2024-02-01 2024-02-29'],
    ['2020-W53', '2020-12-28 2021-01-03'],
    ['2024-02-29', '2024-02-29 2024-02-29'],
  ])('%s', (text, want) => expect(days(text)).toBe(want));

  it.each(['2024-13', '2023-02-29', '2024-Q5', '2021-W53', '24', '2024-4', 'May 2024', ''])(
    '“%s” is none',
    (text) => expect(days(text)).toBeNull(),
  );

  it('a name is a period of a kind where it lies in one', () => {
    expect(periodNamed('2024-05', 'quarter')).toBe(periodNamed('2024-Q2', 'quarter'));
    expect(periodNamed('2024', 'quarter')).toBeNull();
    const april = { yearStartsIn: 4, yearNamedBy: 'end', weekStartsOn: 1 } as const;
    // The year that goes by 2024 where years end in March.
    expect(periodNamed('2024', 'year', april)).toBe(periodNamed('2023-04-01', 'year', april));
  });
});

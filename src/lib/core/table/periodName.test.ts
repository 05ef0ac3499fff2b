import { describe, expect, it } from 'vitest';
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
});

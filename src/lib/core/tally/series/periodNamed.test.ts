import { expect, it } from 'vitest';
import { PeriodName, periodNamed } from './periodNamed';

it('a name is a period of a kind where it lies in one', () => {
  expect(periodNamed('2024-05', 'quarter')).toBe(periodNamed('2024-Q2', 'quarter'));
  expect(periodNamed('2024', 'quarter')).toBeNull();
  const april = { yearStartsIn: 4, yearNamedBy: 'end', weekStartsOn: 1 } as const;
  // The year that goes by 2024 where years end in March.
  expect(periodNamed('2024', 'year', april)).toBe(periodNamed('2023-04-01', 'year', april));
  // Written across two it is that year, whichever way years are named.
  expect(periodNamed('2023/24', 'year', april)).toBe(periodNamed('2023-04-01', 'year', april));
  expect(periodNamed('2023/24', 'quarter', april)).toBeNull();
  expect(PeriodName.safeParse('2023/25').success).toBe(false);
});

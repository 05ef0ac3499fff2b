import { expect, it } from 'vitest';
import { periodNamed } from './periodNamed';

it('a name is a period of a kind where it lies in one', () => {
  expect(periodNamed('2024-05', 'quarter')).toBe(periodNamed('2024-Q2', 'quarter'));
  expect(periodNamed('2024', 'quarter')).toBeNull();
  const april = { yearStartsIn: 4, yearNamedBy: 'end', weekStartsOn: 1 } as const;
  // The year that goes by 2024 where years end in March.
  expect(periodNamed('2024', 'year', april)).toBe(periodNamed('2023-04-01', 'year', april));
});

import { describe, expect, it } from 'vitest';
import { bothOf, clashOf } from '$lib/core/bench/clash';
import type { Condition, Rung, Test } from '$lib/core/selection/condition';

const leaf = (column: string, test: Test, not = false): Condition => ({
  kind: 'leaf',
  column,
  not,
  test,
});
const is = (...values: string[]): Test => ({ test: 'is', values, exact: false });
const rung = (condition: Condition, on = true): Rung => ({ id: 'r1', on, condition });

describe('a step that another takes the place of', () => {
  const north = rung(leaf('Region', is('North', 'East')));

  it('narrows the same column to other values', () => {
    expect(clashOf([north], leaf('Region', is('South')))).toBe(north);
    const year = rung(leaf('Day', { test: 'period', period: 'year', days: ['2024-01-01'] }));
    const later: Test = { test: 'period', period: 'year', days: ['2025-01-01'] };
    expect(clashOf([year], leaf('Day', later))).toBe(year);
  });

  it('is none where the two can meet', () => {
    for (const [before, next] of [
      // A value of both, spelled otherwise.
      [north, leaf('Region', is(' north', 'South'))],
      [north, leaf('Depot', is('South'))],
      [north, leaf('Region', is('South'), true)],
      [rung(leaf('Region', is('North'), true)), leaf('Region', is('South'))],
      [rung(leaf('Region', is('North')), false), leaf('Region', is('South'))],
      [
        rung(leaf('Day', { test: 'season', of: 'month', values: [3] })),
        leaf('Day', { test: 'season', of: 'weekday', values: [1] }),
      ],
    ] as const)
      expect(clashOf([before], next)).toBeNull();
  });

  it('becomes one with it on request: any of both', () => {
    expect(bothOf(north, leaf('Region', is('South')))).toEqual(
      leaf('Region', is('North', 'East', 'South')),
    );
    const march = leaf('Day', { test: 'season', of: 'month', values: [3] });
    const may = leaf('Day', { test: 'season', of: 'month', values: [5] });
    expect(bothOf(rung(march), may)).toEqual({ kind: 'any', not: false, parts: [march, may] });
  });
});

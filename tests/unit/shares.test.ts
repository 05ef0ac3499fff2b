import { describe, expect, it } from 'vitest';
import { sortRecords } from '$lib/core/arrange/sort';
import type { Task } from '$lib/core/task/task';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { wholeInput } from '$lib/core/tally/input/input';
import { computeTally } from '$lib/core/tally/kind/kinds';
import { Tally } from '$lib/core/tally/spec/specs';

/** The shares that work tells on its way. */
function shares(steps: Task<unknown>): number[] {
  const told: number[] = [];
  for (let next = steps.next(); !next.done; next = steps.next())
    if (next.value !== undefined) told.push(next.value);
  return told;
}

const RECORDS = 600_000;
const table: Table = {
  length: RECORDS,
  columns: [
    textColumn(
      'Route',
      Array.from({ length: RECORDS }, (_, i) => `route ${i % 7}`),
      'route',
    ),
    scalarColumn(
      'Fares',
      'number',
      Array.from({ length: RECORDS }, (_, i) => ((i * 7919) % 100_003) / 100),
      { id: 'fares', decimals: 2 },
    ),
    scalarColumn(
      'Fuel',
      'number',
      Array.from({ length: RECORDS }, (_, i) => Math.sin(i) * 900),
      { id: 'fuel', decimals: 6 },
    ),
  ],
};

/** They rise, tell of much of the way, and end near the whole. */
function expectRising(told: readonly number[]): void {
  expect(told.length).toBeGreaterThan(4);
  expect(told).toEqual([...told].sort((a, b) => a - b));
  expect(told[0]).toBeGreaterThanOrEqual(0);
  expect(told[0]).toBeLessThan(0.3);
  expect(told[told.length - 1]).toBeLessThanOrEqual(1);
  expect(told[told.length - 1]).toBeGreaterThan(0.8);
}

describe('what is told of long work', () => {
  it('rises while records are sorted by several columns', () => {
    const keys = ['route', 'fares', 'fuel'].map((column) => ({
      column,
      descending: false,
      blanks: 'last' as const,
    }));
    expectRising(shares(sortRecords(table, keys)));
  });

  it.each([
    ['records', { kind: 'ranking', by: { kind: 'max', column: 'fares' } }],
    [
      'records by a column of long numbers',
      { kind: 'ranking', by: { kind: 'max', column: 'fuel' } },
    ],
    [
      'records within groups',
      {
        kind: 'ranking',
        within: 1,
        groups: [{ column: 'route' }],
        by: { kind: 'max', column: 'fares' },
      },
    ],
  ])('rises while %s are ranked', (_, spec) => {
    expectRising(shares(computeTally(wholeInput(table), Tally.parse(spec))));
  });
});

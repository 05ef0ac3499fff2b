import { describe, expect, it } from 'vitest';
import { answered } from '../support/ask';
import { dayNumber } from '$lib/core/table/calendar';
import { scalarColumn } from '$lib/core/table/column';
import { USUAL_CALENDAR } from '$lib/core/table/period';
import type { Table } from '$lib/core/table/table';
import { finish } from '$lib/core/task/task';
import { questionsOf } from '$lib/core/tally/wish/guesses';
import { columnFacts } from '$lib/core/tally/wish/listFacts';
import { standsFor } from '$lib/core/tally/series/placeInPeriod';

/** Days as `2025-01-31`. */
const days = (...texts: string[]): number[] =>
  texts.map((text) => {
    const [y, m, d] = text.split('-').map(Number);
    return dayNumber(y, m, d);
  });
const dated = (values: readonly number[]): Table => ({
  length: values.length,
  columns: [
    scalarColumn('day', 'date', values),
    scalarColumn(
      'n',
      'number',
      values.map((_, k) => 10 + k),
    ),
  ],
});
const placeOf = (...texts: string[]): string =>
  standsFor(scalarColumn('day', 'date', days(...texts)), USUAL_CALENDAR);

describe('what a date stands for', () => {
  it('is the longest period whose first or last day all of them are', () => {
    expect(placeOf('2025-01-01', '2025-02-01', '2025-03-01')).toBe('month');
    expect(placeOf('2025-01-31', '2025-02-28', '2024-02-29')).toBe('month');
    expect(placeOf('2025-01-01', '2025-04-01')).toBe('quarter');
    expect(placeOf('2025-06-30', '2025-12-31')).toBe('half');
    expect(placeOf('2023-01-01', '2025-01-01')).toBe('year');
    expect(placeOf('2025-01-06', '2025-01-13', '2025-01-27')).toBe('week');
    expect(placeOf('2025-01-01', '2025-02-02')).toBe('day');
    // The 15th of each month is the month's.
    expect(placeOf('2025-01-15', '2025-02-15', '2025-05-15')).toBe('month');
    expect(placeOf('2025-01-15', '2025-02-16')).toBe('day');
    // One date stands at many edges, and tells of none.
    expect(placeOf('2025-01-01', '2025-01-01')).toBe('day');
    expect(placeOf('2025-01-01', '2025-01-31')).toBe('day');
  });

  it('is asked of the calendar that years start by', () => {
    const april = scalarColumn('day', 'date', days('2024-04-01', '2025-04-01'));
    expect(standsFor(april, { ...USUAL_CALENDAR, yearStartsIn: 4 })).toBe('year');
    expect(standsFor(april, USUAL_CALENDAR)).toBe('quarter');
  });
});

describe('years and quarters', () => {
  const table: Table = {
    length: 3,
    columns: [
      scalarColumn('Year', 'date', days('2020-01-01', '2021-01-01', '2021-01-01'), {
        grain: 'year',
      }),
      scalarColumn('n', 'number', [1, 2, 4]),
    ],
  };

  it('group as what they are, whatever finer period is asked for', () => {
    const [ledger] = answered(table, {
      tallies: [
        {
          kind: 'ledger',
          groups: [{ column: 'Year', period: 'month' }],
          measures: [{ kind: 'sum', column: 'n' }],
        },
      ],
    }).tallies;
    expect(ledger.tables[0].rows.map(({ cells }) => cells[0])).toEqual([
      'Grand total',
      '2020',
      '2021',
    ]);
  });

  it('are guessed by their own rhythm', () => {
    const facts = { records: 3, columns: finish(columnFacts(table)), lead: null, lists: [] };
    const kinds = new Map(questionsOf(facts).map(({ kind, guess }) => [kind, guess]));
    expect(kinds.get('periods')).toMatchObject({ tally: { levels: ['year'] } });
    expect(kinds.get('forecast')).toMatchObject({ tally: { series: { period: 'year' } } });
  });
});

describe('periods that the dates cover', () => {
  const series = { column: 'day', period: 'month', measure: { kind: 'sum', column: 'n' } };
  const warnings = (values: readonly number[], tally: Record<string, unknown>): string[] =>
    answered(dated(values), { tallies: [tally] }).tallies[0].warnings.map((w) => w.code);
  const months = (day: (m: number) => number): number[] =>
    Array.from({ length: 24 }, (_, k) =>
      dayNumber(2024 + Math.floor(k / 12), (k % 12) + 1, day(k)),
    );

  it.each([
    ['the first of each month', months(() => 1)],
    [
      'the last of each month',
      months((k) => [31, k < 12 ? 29 : 28, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31][k % 12]),
    ],
  ])('dated on %s are whole: nothing is left out', (_, values) => {
    for (const tally of [
      {
        kind: 'periods',
        column: 'day',
        levels: ['year', 'month'],
        measures: [{ kind: 'records' }],
      },
      { kind: 'growth', series },
      { kind: 'forecast', series, method: 'naive' },
    ])
      expect(warnings(values, tally).filter((code) => code.startsWith('partial'))).toEqual([]);
  });

  it('dated in their midst are partial at both ends', () => {
    const values = months((k) => 10 + (k % 7));
    const got = warnings(values, { kind: 'growth', series });
    expect(got).toContain('partial-first');
    expect(got).toContain('partial-last');
  });
});

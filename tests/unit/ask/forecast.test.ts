import { AskRefused } from '$lib/core/errors';
import { describe, expect, it } from 'vitest';
import { scalarColumn } from '$lib/core/table/column';
import { dayNumber } from '$lib/core/table/calendar';
import type { Table } from '$lib/core/table/table';
import { answered, rows } from '../../support/ask';
import { day } from '../../support/smallList';

describe('forecast', () => {
  const series = (n: number, of: (t: number) => number): Table => ({
    length: n,
    columns: [
      scalarColumn(
        'M',
        'date',
        Array.from({ length: n }, (_, t) => dayNumber(2020 + Math.floor(t / 12), (t % 12) + 1, 1)),
        { grain: 'month' },
      ),
      scalarColumn(
        'v',
        'number',
        Array.from({ length: n }, (_, t) => of(t)),
      ),
    ],
  });
  const ask = (more: object) => ({
    tallies: [
      {
        kind: 'forecast',
        series: { column: 'M', period: 'month', measure: { kind: 'sum', column: 'v' } },
        ...more,
      },
    ],
  });

  it('carries an exact line on, and says what it stands on', () => {
    const result = answered(
      series(24, (t) => 10 + 3 * t),
      ask({ method: 'line', horizon: 2 }),
    );
    expect(rows(result).map((r) => [r['Period'], r['Forecast of sum of v']])).toEqual([
      ['Jan 2022', expect.closeTo(82, 8)],
      ['Feb 2022', expect.closeTo(85, 8)],
    ]);
    expect(result.tallies[0].warnings[0].words).toBe(
      'It stands on 24 points, from Jan 2020 to Dec 2021.',
    );
  });

  it('refuses a gap until it is told what to do, and warns of few points', () => {
    const gap: Table = {
      length: 3,
      columns: [
        scalarColumn('M', 'date', [day('2025-01-05'), day('2025-02-05'), day('2025-04-06')]),
        scalarColumn('v', 'number', [1, 2, 4]),
      ],
    };
    expect(() => answered(gap, ask({ method: 'line' }))).toThrow(AskRefused);
    const filled = answered(
      gap,
      ask({ method: 'line', gaps: 'interpolate', incompleteLast: 'keep', horizon: 1 }),
    );
    expect(rows(filled)[0]['Forecast of sum of v']).toEqual(expect.closeTo(5, 10));
    expect(filled.tallies[0].warnings.map((w) => w.code)).toEqual(
      expect.arrayContaining(['few-points', 'under-two-seasons', 'gaps-filled']),
    );
    expect(
      rows(answered(gap, ask({ method: 'naive', gaps: 'zero', horizon: 1 })))[0][
        'Forecast of sum of v'
      ],
    ).toBe(0);
  });

  it('shows the table it chose by', () => {
    const result = answered(
      series(48, (t) => 100 + t + [0, 40, -30, 9, 5, 1, 0, 2, 7, -12, 8, 3][t % 12]),
      ask({}),
    );
    const tried = rows(result, 'methods');
    expect(tried.length).toBe(13);
    const chosen = tried.filter((r) => r['Chosen'] === 'yes');
    expect(chosen.length).toBe(1);
    const errors = tried
      .map((r) => r['Mean absolute error'])
      .filter((v): v is number => typeof v === 'number');
    expect(chosen[0]['Mean absolute error']).toBeLessThanOrEqual(Math.min(...errors) + 1e-6);
  });
});

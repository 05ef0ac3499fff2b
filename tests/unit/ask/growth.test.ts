import { describe, expect, it } from 'vitest';
import { scalarColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { answered, rows } from '../../support/ask';
import { day, small } from '../../support/smallList';

describe('growth', () => {
  it('a period without a rate leaves their mean none, and says why', () => {
    const months = [1, 2, 3, 4].map((m) => day(`2024-0${m}-01`));
    const list: Table = {
      length: 4,
      columns: [
        scalarColumn('M', 'date', months, { grain: 'month' }),
        scalarColumn('v', 'number', [100, 0, 50, 121]),
      ],
    };
    const result = answered(list, {
      tallies: [
        {
          kind: 'growth',
          series: { column: 'M', period: 'month', measure: { kind: 'sum', column: 'v' } },
        },
      ],
    });
    expect(rows(result)[0]).toMatchObject({
      'Mean of the period rates': null,
      'Compound rate per period': expect.closeTo(1.21 ** (1 / 3) - 1, 12) as number,
    });
    const { warnings } = result.tallies[0];
    expect(warnings.map((w) => w.code)).toEqual(['intervals', 'no-mean-rate']);
    expect(warnings[1].words).toBe(
      'No mean of the period rates: 1 period has no rate, as the one before is 0 or none.',
    );
  });

  it('13 values are 12 intervals, and the mean of rates is not the compound rate', () => {
    const months = Array.from({ length: 13 }, (_, k) =>
      day(`${2024 + Math.floor(k / 12)}-${String((k % 12) + 1).padStart(2, '0')}-01`),
    );
    const list: Table = {
      length: 13,
      columns: [
        scalarColumn('M', 'date', months, { grain: 'month' }),
        scalarColumn(
          'v',
          'number',
          [100, 150, 75, 100, 100, 100, 100, 100, 100, 100, 100, 100, 110],
        ),
      ],
    };
    const result = answered(list, {
      tallies: [
        {
          kind: 'growth',
          series: { column: 'M', period: 'month', measure: { kind: 'sum', column: 'v' } },
        },
      ],
    });
    const [g] = rows(result);
    expect([
      g['Intervals'],
      g['Compound rate per period'],
      g['Compound rate per year'],
      g['Total growth'],
    ]).toEqual(
      [12, expect.closeTo(1.1 ** (1 / 12) - 1, 12), expect.closeTo(0.1, 12), 0.1].map((v) =>
        typeof v === 'number' && v === 0.1 ? expect.closeTo(0.1, 12) : v,
      ),
    );
    expect(result.tallies[0].warnings.map((w) => w.code)).toEqual(['intervals', 'mean-differs']);
    expect(result.tallies[0].warnings[0].words).toContain('12 months between 13 values');
  });

  it('is refused with the reason where nothing can grow at a rate, and between dates by 365.25 days', () => {
    const growth = (values: object) => answered(small, { tallies: [{ kind: 'growth', values }] });
    expect(growth({ first: 0, last: 5, intervals: 2 }).tallies[0].warnings[1].words).toMatch(
      /No compound rate: The first value is 0/,
    );
    expect(
      rows(growth({ first: 5, last: -5, intervals: 2 }))[0]['Compound rate per period'],
    ).toBeNull();
    expect(
      rows(growth({ first: 100, last: 121, firstDate: '2020-01-01', lastDate: '2022-01-01' }))[0][
        'Compound rate per period'
      ],
    ).toEqual(expect.closeTo(1.21 ** (365.25 / 731) - 1, 12));
    expect(
      rows(growth({ first: 100, last: 121, intervals: 2 }))[0]['Compound rate per period'],
    ).toEqual(expect.closeTo(0.1, 12));
  });
});

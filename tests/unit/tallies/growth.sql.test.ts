import { describe, expect, it } from 'vitest';
import { near, sql, table } from '../../support/againstSql';
import { answered, rows } from '../../support/ask';

describe('growth', () => {
  it('of whole years: rates, compound and fitted, from the totals SQL gives', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'growth',
          series: {
            column: 'Sailed on',
            period: 'year',
            measure: { kind: 'sum', column: 'Boarded' },
          },
        },
      ],
    });
    // The year the data end inside is left out.
    const totals = sql(
      "select substr(sailed_on, 1, 4) y, sum(boarded) b from s where y < '2026' group by y order by y",
    );
    const values = totals.map((r) => Number(r.b));
    const last = values.length - 1;
    const rates = values.slice(1).map((v, k) => v / values[k] - 1);
    expect(rows(result, 'periods')).toEqual(
      totals.map((r, k) => ({
        Period: r.y,
        'sum of Boarded': near(r.b),
        Rate: near(k === 0 ? null : rates[k - 1]),
      })),
    );
    const [main] = rows(result);
    const compound = (values[last] / values[0]) ** (1 / last) - 1;
    expect([main['First value'], main['Last value'], main['Intervals']]).toEqual([
      near(values[0]),
      near(values[last]),
      last,
    ]);
    expect(main['Total growth']).toEqual(near(values[last] / values[0] - 1));
    expect(main['Compound rate per period']).toEqual(near(compound));
    expect(main['Compound rate per year']).toEqual(near(compound));
    expect(main['Mean of the period rates']).toEqual(near(rates.reduce((a, b) => a + b) / last));
    // The slope of the logarithms by least squares.
    const logs = values.map(Math.log);
    const [tMean, lMean] = [last / 2, logs.reduce((a, b) => a + b) / values.length];
    const slope =
      logs.reduce((sum, l, t) => sum + (t - tMean) * (l - lMean), 0) /
      logs.reduce((sum, _, t) => sum + (t - tMean) ** 2, 0);
    expect(main['Fitted rate']).toEqual(near(Math.exp(slope) - 1));
  });

  it('of months: the compound rate per year is that of twelve periods', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'growth',
          series: { column: 'Sailed on', period: 'month', measure: { kind: 'records' } },
        },
      ],
    });
    const [main] = rows(result);
    const rate = Number(main['Compound rate per period']);
    expect(main['Compound rate per year']).toEqual(near((1 + rate) ** 12 - 1));
    const months = rows(result, 'periods');
    for (const r of sql(
      "select substr(sailed_on, 1, 7) m, count(*) n from s where m < '2026-06' group by m",
    )) {
      const [year, month] = String(r.m).split('-').map(Number);
      expect(months[(year - 2023) * 12 + month - 1]['count of records']).toBe(r.n);
    }
  });
});

import { describe, expect, it } from 'vitest';
import { near, sql, table } from '../../support/againstSql';
import { answered, groups, rows } from '../../support/ask';

describe('periods', () => {
  it('months with changes, totals to date and moving averages', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'periods',
          column: 'Sailed on',
          levels: ['month'],
          measures: [{ kind: 'sum', column: 'Boarded' }],
          against: ['previous', 'yearBefore'],
          running: true,
          toDate: true,
          moving: { k: 3 },
          index: {},
        },
      ],
    });
    const want = sql(`with m as (select substr(sailed_on, 1, 7) p, sum(boarded) s from s group by 1)
      select p, s, s - lag(s) over w d, 1.0 * (s - lag(s, 12) over w) / lag(s, 12) over w y, sum(s) over w r,
        sum(s) over (partition by substr(p, 1, 4) order by p) t,
        case when row_number() over w >= 3 then avg(s) over (order by p rows 2 preceding) end a,
        100.0 * s / first_value(s) over w i
      from m window w as (order by p)`);
    const got = groups(result);
    expect(got.length).toBe(want.length);
    const head = 'sum of Boarded';
    got.forEach((g, k) =>
      expect([
        String(g['From']).slice(0, 7),
        g[head],
        g[`${head}, difference from the period before`],
        g[`${head}, change from a year before`],
        g[`${head}, running total`],
        g[`${head}, since the start of the year`],
        g[`${head}, trailing average of 3`],
        g[`${head}, index`],
      ]).toEqual([
        want[k].p,
        want[k].s,
        near(want[k].d),
        near(want[k].y),
        want[k].r,
        want[k].t,
        near(want[k].a),
        near(want[k].i),
      ]),
    );
  });

  it('levels nest, each from the records, and ISO weeks turn with the year', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'periods',
          column: 'Sailed on',
          levels: ['year', 'quarter', 'month'],
          measures: [{ kind: 'mean', column: 'Delay' }],
        },
      ],
    });
    const got = rows(result);
    for (const r of sql(
      'select substr(sailed_on, 1, 4) y, avg(delay) m, count(*) n from s group by 1',
    )) {
      const year = got.find((g) => g['Period'] === r.y);
      expect([year?.['mean of Delay'], year?.['Records']]).toEqual([near(r.m), r.n]);
    }
    const weeks = answered(table, {
      tallies: [
        { kind: 'periods', column: 'Sailed on', levels: ['week'], measures: [{ kind: 'records' }] },
      ],
    });
    const monday = "date(sailed_on, '-6 days', 'weekday 1')";
    expect(groups(weeks).map((g) => [g['From'], g['Records']])).toEqual(
      sql(`select ${monday} w, count(*) n from s group by 1 order by 1`).map((r) => [r.w, r.n]),
    );
  });
});

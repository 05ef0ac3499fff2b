import { describe, expect, it } from 'vitest';
import { key, near, sailed, sql, table } from '../../support/againstSql';
import { answered, rows } from '../../support/ask';

describe('cross-tab', () => {
  it('cells and margins agree, under a condition', () => {
    const result = answered(table, {
      ladder: { rungs: [{ condition: sailed }] },
      tallies: [
        {
          kind: 'crosstab',
          down: [key('Route')],
          across: [key('Weather')],
          measures: [
            { kind: 'mean', column: 'Delay' },
            { kind: 'sum', column: 'Fares taken' },
            { kind: 'distinct', column: 'Vessel' },
          ],
          shares: ['row', 'column', 'total'],
          count: true,
        },
      ],
    });
    const got = rows(result);
    const where = "cancelled = 'no'";
    const select = `count(*) n, avg(delay) m, sum(fares) s, count(distinct vessel) d`;
    for (const r of sql(
      `select route, coalesce(weather, 'blank') w, ${select} from s where ${where} group by route, weather`,
    )) {
      const row = got.find((g) => g['Route'] === r.route) ?? {};
      expect(row[`${r.w} › Records`]).toBe(r.n);
      expect(row[`${r.w} › mean of Delay`]).toEqual(near(r.m));
      expect(row[`${r.w} › sum of Fares taken`]).toEqual(near(r.s));
      expect(row[`${r.w} › count of distinct values of Vessel`]).toBe(r.d);
    }
    for (const r of sql(`select route, ${select} from s where ${where} group by route`)) {
      const row = got.find((g) => g['Route'] === r.route) ?? {};
      expect([
        row['All › Records'],
        row['All › mean of Delay'],
        row['All › sum of Fares taken'],
        row['All › count of distinct values of Vessel'],
      ]).toEqual([r.n, near(r.m), near(r.s), r.d]);
    }
    const [whole] = sql(`select ${select} from s where ${where}`);
    expect(got[0]['All › mean of Delay']).toEqual(near(whole.m));
    const [fog] = sql(`select sum(fares) s from s where ${where} and weather = 'fog'`);
    const nessness = got.find((g) => g['Route'] === 'Nessness') ?? {};
    expect(nessness['fog › share of the column, sum of Fares taken']).toEqual(
      near(Number(nessness['fog › sum of Fares taken']) / Number(fog.s)),
    );
    expect(result.tallies[0].footing).toMatchObject({ foots: true });
  });

  it('two keys down and two across, with subtotals of both', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'crosstab',
          down: [key('Route'), key('Direction')],
          across: [key('Sailed on', { period: 'year' }), key('Cancelled')],
          measures: [{ kind: 'sum', column: 'Boarded' }],
        },
      ],
    });
    const got = rows(result);
    for (const r of sql(
      `select route, direction, substr(sailed_on, 1, 4) y, cancelled c, sum(boarded) s from s group by 1, 2, 3, 4`,
    )) {
      const row = got.find((g) => g['Route'] === r.route && g['Direction'] === r.direction) ?? {};
      expect(row[`${r.y} › ${r.c} › sum of Boarded`]).toEqual(near(r.s ?? 0));
    }
    for (const r of sql(
      `select route, substr(sailed_on, 1, 4) y, sum(boarded) s from s group by 1, 2`,
    )) {
      const row = got.find((g) => g['Route'] === r.route && g['Direction'] === null) ?? {};
      expect(row[`${r.y} total › sum of Boarded`]).toEqual(near(r.s));
    }
    expect(result.tallies[0].footing.foots).toBe(true);
    expect(result.tallies[0].footing.compared).toBeGreaterThan(100);
  });
});

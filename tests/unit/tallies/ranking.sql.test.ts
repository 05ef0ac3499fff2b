import { describe, expect, it } from 'vitest';
import { key, near, sql, table } from '../../support/againstSql';
import { answered, groups, rows } from '../../support/ask';

describe('ranking', () => {
  it('groups in places as SQL ranks them, shares and others', () => {
    for (const [ties, rank] of [
      ['gap', 'rank'],
      ['noGap', 'dense_rank'],
    ] as const) {
      const result = answered(table, {
        tallies: [
          { kind: 'ranking', groups: [key('Weather')], by: { kind: 'max', column: 'Delay' }, ties },
        ],
      });
      expect(groups(result).map((g) => [g['Place'], g['Weather'], g['highest of Delay']])).toEqual(
        sql(
          `select ${rank}() over (order by max(delay) desc) p, coalesce(weather, 'blank') w, max(delay) m from s group by weather order by p, weather is null, w`,
        ).map((r) => [r.p, r.w, r.m]),
      );
    }
    const top = answered(table, {
      tallies: [
        {
          kind: 'ranking',
          groups: [key('Vessel')],
          by: { kind: 'sum', column: 'Boarded' },
          top: 2,
        },
      ],
    });
    const want = sql('select vessel v, sum(boarded) s from s group by vessel order by s desc');
    const all = want.reduce((s, r) => s + Number(r.s), 0);
    const got = rows(top);
    expect(got.slice(0, 2).map((g) => [g['Vessel'], g['sum of Boarded'], g['Share']])).toEqual(
      want.slice(0, 2).map((r) => [r.v, r.s, near(Number(r.s) / all)]),
    );
    expect(got[2]['sum of Boarded']).toBe(want.slice(2).reduce((s, r) => s + Number(r.s), 0));
  });

  it('within a parent group', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'ranking',
          groups: [key('Route'), key('Vessel')],
          within: 1,
          by: { kind: 'records' },
        },
      ],
    });
    expect(groups(result).map((g) => [g['Route'], g['Vessel'], g['Place']])).toEqual(
      sql(
        'select route, vessel, rank() over (partition by route order by count(*) desc) p from s group by route, vessel order by route, p, vessel',
      ).map((r) => [r.route, r.vessel, r.p]),
    );
  });

  it('records, with ties at the edge kept and blanks left out', () => {
    const result = answered(table, {
      tallies: [
        { kind: 'ranking', by: { kind: 'max', column: 'Delay' }, top: 10, show: ['Route'] },
      ],
    });
    const want = sql(
      'select * from (select n, trim(route) r, delay d, rank() over (order by delay desc) p from s where delay is not null) where p <= 10 order by p, n',
    );
    expect(
      groups(result).map((g) => [
        Number(g['Record']) - 1,
        String(g['Route']).trim(),
        g['Delay'],
        g['Place'],
      ]),
    ).toEqual(want.map((r) => [r.n, r.r, r.d, r.p]));
    const [{ n }] = sql('select count(*) n from s where delay is null');
    expect(result.tallies[0].warnings[0].says).toMatch(
      new RegExp(`^${n} records? without a value`),
    );
  });

  it('change of place between two years', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'ranking',
          groups: [key('Vessel')],
          by: { kind: 'sum', column: 'Boarded' },
          change: {
            column: 'Sailed on',
            period: 'year',
            before: '2024-06-01',
            after: '2025-01-01',
          },
        },
      ],
    });
    const places = (year: number) =>
      new Map(
        sql(
          `select vessel, rank() over (order by sum(boarded) desc) p from s where sailed_on like '${year}-%' group by vessel`,
        ).map((r) => [r.vessel, Number(r.p)]),
      );
    const [a, b] = [places(2024), places(2025)];
    for (const g of groups(result)) {
      const [p, q] = [a.get(String(g['Vessel'])) ?? null, b.get(String(g['Vessel'])) ?? null];
      expect([g['Place in 2024'], g['Place in 2025'], g['Places gained']]).toEqual([
        p,
        q,
        p === null || q === null ? null : p - q,
      ]);
    }
  });
});

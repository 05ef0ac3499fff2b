import { describe, expect, it } from 'vitest';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { key, near, sql, table } from '../../support/againstSql';
import { answered, faultsOf, groups, rows } from '../../support/ask';
import { day } from '../../support/smallList';

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

  it('records within groups: places, shares of the group, ties at the edge, and the others of each', () => {
    for (const [ties, rank] of [
      ['gap', 'rank'],
      ['noGap', 'dense_rank'],
    ] as const) {
      const result = answered(table, {
        tallies: [
          {
            kind: 'ranking',
            groups: [key('Route'), key('Weather')],
            within: 2,
            by: { kind: 'sum', column: 'Delay' },
            ties,
            top: 3,
          },
        ],
      });
      // The edge is the third highest of the group; all that equal it stay in.
      const ranked = `select n, route, coalesce(weather, 'blank') w, weather is null b, delay,
        ${rank}() over (partition by route, weather order by delay desc) p,
        row_number() over (partition by route, weather order by delay desc, n) k,
        nth_value(delay, 3) over (partition by route, weather order by delay desc, n
          rows between unbounded preceding and unbounded following) edge,
        sum(delay) over (partition by route, weather) whole
        from s where delay is not null`;
      const want = sql(
        `select * from (${ranked}) where edge is null or delay >= edge order by route, b, w, delay desc, n`,
      );
      expect(
        groups(result).map((g) => [g['Route'], g['Weather'], g['Record'], g['Place'], g['Share']]),
      ).toEqual(
        want.map((r) => [
          r.route,
          r.w,
          Number(r.n) + 1,
          r.p,
          Number(r.whole) === 0 ? null : near(Number(r.delay) / Number(r.whole)),
        ]),
      );
      const others = rows(result).filter(
        (_, k) => result.tallies[0].tables[0].rows[k].kind === 'others',
      );
      const left = sql(
        `select route, w, count(*) n, sum(delay) s from (${ranked}) where delay < edge group by route, b, w order by route, b, w`,
      );
      expect(others.map((g) => [g['Route'], g['Weather'], g['Delay']])).toEqual(
        left.map((r) => [r.route, r.w, near(Number(r.s))]),
      );
      expect(result.tallies[0].tables[0].rows.flatMap((r) => r.stands ?? [])).toEqual(
        left.map((r) => r.n),
      );
      expect(result.tallies[0].footing.foots).toBe(true);
      expect(result.tallies[0].words).toContain('within each Route and Weather');
    }
  });

  it('records within groups, from the lowest and from the bottom', () => {
    const of = (more: object) =>
      groups(
        answered(table, {
          tallies: [
            {
              kind: 'ranking',
              groups: [key('Vessel')],
              within: 1,
              by: { kind: 'sum', column: 'Fares taken' },
              ties: 'order',
              ...more,
            },
          ],
        }),
      ).map((g) => [g['Vessel'], g['Record']]);
    const want = (order: string, k: string) =>
      sql(
        `select vessel, n from (select vessel, n, fares, row_number() over (partition by vessel order by fares ${order}, n) k,
         count(fares) over (partition by vessel) c from s where fares is not null) where ${k} order by vessel, fares ${order}, n`,
      ).map((r) => [r.vessel, Number(r.n) + 1]);
    expect(of({ from: 'lowest' })).toEqual(want('asc', '1'));
    expect(of({}).length).toBe(want('desc', '1').length);
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
    expect(result.tallies[0].warnings[0].words).toMatch(
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

  it('records change their place between two periods, matched by a key; a key twice has none', () => {
    const list: Table = {
      length: 7,
      columns: [
        textColumn('Name', ['a', 'b', 'c', 'b', 'a', 'd', 'd']),
        scalarColumn('V', 'number', [3, 2, 1, 9, 8, 7, 6]),
        scalarColumn(
          'D',
          'date',
          [
            '2024-01-01',
            '2024-02-01',
            '2024-12-31',
            '2025-01-01',
            '2025-05-01',
            '2025-06-01',
            '2025-12-31',
          ].map(day),
        ),
      ],
    };
    const spec = {
      kind: 'ranking',
      by: { kind: 'sum', column: 'V' },
      show: ['Name'],
      change: { column: 'D', period: 'year', match: ['Name'] },
    };
    const result = answered(list, { tallies: [spec] });
    const of = (name: string) => {
      const row = rows(result).find((r) => r['Name'] === name);
      return [row?.['Place in 2024'], row?.['Place in 2025'], row?.['Places gained']];
    };
    expect([of('a'), of('b'), of('c'), of('d')]).toEqual([
      [1, 2, -1],
      [2, 1, 1],
      [3, null, null],
      [null, null, null],
    ]);
    expect(result.tallies[0].warnings.map((w) => w.words)).toContain(
      '1 key stands more than once in a period and has no place there.',
    );
    const unmatched = { ...spec, change: { ...spec.change, match: [] } };
    expect(faultsOf(() => answered(list, { tallies: [unmatched] }))[0]).toContain(
      'tallies[0].change.match',
    );
  });
});

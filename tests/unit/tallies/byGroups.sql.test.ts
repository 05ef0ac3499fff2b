import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import type { FigureTable, TallyResult } from '$lib/core/tally/answer/result';
import { key, near, sql, table } from '../../support/againstSql';
import { answered, behind, groups, rows, answeredOn } from '../../support/ask';
import { day } from '../../support/smallList';

const BOARDED = { kind: 'sum', column: 'Boarded' };
const tableOf = ({ tables }: TallyResult, name: string): FigureTable => {
  const found = tables.find((t) => t.name === name);
  if (!found) throw new Error(`no table ${name}`);
  return found;
};

describe('series by groups', () => {
  const asked = (more: object = {}) => ({
    kind: 'periods',
    column: 'Sailed on',
    levels: ['year', 'month'],
    measures: [BOARDED, { kind: 'mean', column: 'Delay' }],
    against: ['yearBefore'],
    by: [key('Route'), key('Vessel')],
    ...more,
  });
  const want =
    sql(`select route r, vessel v, substr(sailed_on, 1, 7) m, count(*) n, sum(boarded) b, avg(delay) d
    from s group by 1, 2, 3 order by 1, 2, 3`);
  const wanted = new Map(want.map((w) => [`${w.r}|${w.v}|${w.m}`, w]));

  it.each(['periods', 'groups'])('holds what SQL finds, %s inside', (nest) => {
    const result = answered(table, { tallies: [asked({ nest })] });
    const got = groups(result, 'groups').filter((g) => Number(g['Records']) > 0);
    expect(got.length).toBe(want.length);
    for (const g of got) {
      const w = wanted.get(
        `${String(g['Route']).trim()}|${g['Vessel']}|${String(g['From']).slice(0, 7)}`,
      );
      expect([g['Records'], g['sum of Boarded'], g['mean of Delay']]).toEqual([
        w?.n,
        w?.b ?? 0,
        near(w?.d),
      ]);
    }
  });

  it('one calendar for all: a group has every period, and those without records say 0 and none', () => {
    const result = answered(table, { tallies: [asked({ levels: ['month'], against: [] })] });
    const months = new Set(groups(result).map((g) => g['Period'])).size;
    const byGroup = new Map<string, number>();
    for (const g of groups(result, 'groups')) {
      const name = `${g['Route']}|${g['Vessel']}`;
      byGroup.set(name, (byGroup.get(name) ?? 0) + 1);
      if (g['Records'] === 0) expect([g['sum of Boarded'], g['mean of Delay']]).toEqual([0, null]);
    }
    expect(new Set(byGroup.values())).toEqual(new Set([months]));
  });

  it('the whole is what it is without groups, and a figure opens to its own records', () => {
    const spec = asked({ levels: ['month'] });
    const { input, result } = answeredOn(table, { tallies: [spec, { ...spec, by: [] }] });
    expect(tableOf(result.tallies[0], 'main')).toEqual(tableOf(result.tallies[1], 'main'));
    const place = {
      table: 'groups',
      row: ['Skerry Bank', 'Arctic Tern', '2025-07-01', '2025-07-01', '2025-07-31'],
      column: 'm1',
    };
    const of = (year: string) =>
      sql(`select n from s where route = 'Skerry Bank' and vessel = 'Arctic Tern' and sailed_on like '${year}-07%'
        order by n`).map((r) => r.n);
    expect([...behind(input, result.tallies[0], place).records]).toEqual(of('2025'));
    // The figure of a year before stands on the records of a year before; the change on both.
    expect([
      ...behind(input, result.tallies[0], { ...place, column: 'm1.yearBefore' }).records,
    ]).toEqual(of('2024'));
    expect([
      ...behind(input, result.tallies[0], { ...place, column: 'm1.yearBeforeChange' }).records,
    ]).toEqual([...of('2024'), ...of('2025')]);
  });

  it('growth of groups side by side, the fastest first', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'growth',
          series: { column: 'Sailed on', period: 'year', measure: BOARDED, by: [key('Vessel')] },
          from: '2023',
          to: '2025',
        },
      ],
    });
    const rates =
      sql(`with y as (select vessel v, substr(sailed_on, 1, 4) y, sum(boarded) s from s group by 1, 2)
      select a.v v, a.s a, b.s b from y a join y b on a.v = b.v and a.y = '2023' and b.y = '2025' where a.s > 0 and b.s > 0`)
        .map((r) => ({ v: r.v, rate: Math.sqrt(Number(r.b) / Number(r.a)) - 1 }))
        .sort((a, b) => b.rate - a.rate);
    const got = groups(result, 'groups').filter((g) => g['Place'] !== null);
    expect(got.map((g) => [g['Place'], g['Vessel'], g['Compound rate per period']])).toEqual(
      rates.map((r, k) => [k + 1, r.v, near(r.rate)]),
    );
  });

  it('forecasts of groups add up beside the forecast of the sum; one that cannot be is named', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'forecast',
          series: { column: 'Sailed on', period: 'month', measure: BOARDED, by: [key('Vessel')] },
          method: 'seasonalNaive',
          horizon: 6,
        },
      ],
    });
    const last = sql(`select substr(sailed_on, 6, 2) m, vessel v, sum(boarded) b from s
      where sailed_on >= '2025-07' and sailed_on < '2026-01' group by 1, 2`);
    const sums = groups(result, 'sums');
    const chosen = groups(result, 'chosen');
    const refused = chosen.filter((c) => c['Why not'] !== null).map((c) => c['Vessel']);
    sums.forEach((s, k) => {
      const month = last.filter((r) => r.m === String(7 + k).padStart(2, '0'));
      const of = month.filter((r) => !refused.includes(r.v));
      expect([s['Sum of the groups’ forecasts'], s['Forecast of the sum']]).toEqual([
        of.reduce((t, r) => t + Number(r.b), 0),
        month.reduce((t, r) => t + Number(r.b), 0),
      ]);
    });
    // A vessel that was out of service has months without a figure.
    expect(refused.length).toBeGreaterThan(0);
    expect(result.tallies[0].warnings.find((w) => w.code === 'not-forecast')?.words).toContain(
      String(refused[0]),
    );
  });
});

describe('like with like', () => {
  const of = (list: readonly [string, number, string?][]): Table => ({
    length: list.length,
    columns: [
      scalarColumn(
        'D',
        'date',
        list.map(([d]) => day(d)),
      ),
      scalarColumn(
        'V',
        'number',
        list.map(([, v]) => v),
      ),
      textColumn(
        'G',
        list.map(([, , g = 'x']) => g),
      ),
    ],
  });
  const changes = (list: Table, levels: string[], against: string) => {
    const result = answered(list, {
      tallies: [
        {
          kind: 'periods',
          column: 'D',
          levels,
          measures: [{ kind: 'sum', column: 'V' }],
          against: [against],
        },
      ],
    });
    return { result, got: rows(result) };
  };

  it('a year to 10 May is set against the year before to 10 May', () => {
    const list = of([
      ['2024-01-01', 10],
      ['2024-05-10', 5],
      ['2024-05-11', 100],
      ['2024-12-31', 1],
      ['2025-01-02', 20],
      ['2025-05-10', 7],
    ]);
    const { result, got } = changes(list, ['year'], 'yearBefore');
    const year = got.find((g) => g['Period'] === '2025');
    expect(year?.['sum of V, a year before']).toBe(15);
    expect(year?.['sum of V, difference from a year before']).toBe(12);
    expect(result.tallies[0].warnings.find((w) => w.code === 'like-with-like')?.words).toBe(
      '2025 is compared like with like, 1 Jan 2025 to 10 May 2025 against 1 Jan 2024 to 10 May 2024.',
    );
  });

  it('the end of February is set against the end of January, and the first period in part likewise', () => {
    const list = of([
      ['2025-01-10', 1],
      ['2025-01-31', 2],
      ['2025-02-05', 8],
      ['2025-02-12', 4],
      ['2025-03-01', 16],
      ['2025-03-20', 32],
    ]);
    const { got } = changes(list, ['month'], 'previous');
    const of2 = (p: string) => {
      const g = got.find((row) => row['Period'] === p);
      return [
        g?.['sum of V'],
        g?.['sum of V, the period before'],
        g?.['sum of V, difference from the period before'],
      ];
    };
    // January is covered from its 10th: February from its 10th is 4, less 3.
    expect(of2('Feb 2025')).toEqual([12, 3, 1]);
    // March is covered to its 20th: February to its 20th is all 12.
    expect(of2('Mar 2025')).toEqual([48, 12, 36]);
  });

  it('whole periods are compared whole, whatever the records', () => {
    const month = fc.record({
      a: fc.integer({ min: 0, max: 99 }),
      b: fc.integer({ min: 0, max: 99 }),
    });
    fc.assert(
      fc.property(fc.array(month, { minLength: 2, maxLength: 12 }), (list) => {
        const dates = list.flatMap(({ a, b }, k): [string, number][] => {
          const m = String(k + 1).padStart(2, '0');
          const last = new Date(Date.UTC(2025, k + 1, 0)).getUTCDate();
          return [
            [`2025-${m}-01`, a],
            [`2025-${m}-${last}`, b],
          ];
        });
        const { got } = changes(of(dates), ['month'], 'previous');
        list
          .slice(1)
          .forEach(({ a, b }, k) =>
            expect(got[k + 2]['sum of V, difference from the period before']).toBe(
              a + b - list[k].a - list[k].b,
            ),
          );
      }),
    );
  });
});

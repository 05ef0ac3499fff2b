import type { Database } from 'better-sqlite3';
import { beforeAll, describe, expect, it } from 'vitest';
import type { Table } from '$lib/core/table/table';
import { behind } from '$lib/core/tally/behind';
import { answered, groups, rows, standing } from '../support/ask';
import { readDemo } from '../support/demo';
import { sailingsInSql } from '../support/sql';

/** Tallies of the demo against figures worked out by SQLite from the same file. */
let table: Table;
let db: Database;
type Row = Record<string, number | string | null>;
const sql = (query: string): Row[] => db.prepare(query).all() as Row[];

beforeAll(() => {
  table = readDemo('sailings').reading.table;
  db = sailingsInSql();
});

const key = (column: string, more: object = {}) => ({ column, loose: true, ...more });
const leaf = (column: string, test: object, not = false) => ({ kind: 'leaf', column, not, test });
const sailed = leaf('Cancelled', { test: 'is', values: ['no'] });
const near = (v: unknown) => (typeof v === 'number' ? expect.closeTo(v, 6) : (v ?? null));

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

describe('conditional figures', () => {
  it('rows that overlap say so, and what they miss', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'conditional',
          rows: [
            { name: 'late', condition: { kind: 'expression', expression: 'delay >= 10' } },
            { name: 'in a gale', condition: leaf('Weather', { test: 'is', values: ['gale'] }) },
          ],
          everythingElse: true,
          columns: [
            {},
            { measure: { kind: 'mean', column: 'Boarded' } },
            {
              name: 'on Nessness',
              condition: leaf('Route', { test: 'contains', text: 'nessness' }),
            },
          ],
        },
      ],
    });
    const cell = (where: string) =>
      sql(`select count(*) n, avg(boarded) m, sum(route = 'Nessness') k from s where ${where}`)[0];
    const got = groups(result);
    for (const [name, where] of [
      ['late', 'delay >= 10'],
      ['in a gale', "weather = 'gale'"],
      ['Everything else', "not coalesce(delay >= 10, 0) and not coalesce(weather = 'gale', 0)"],
    ]) {
      const row = got.find((g) => g['Where'] === name) ?? {};
      const want = cell(where);
      expect([row['count of records'], row['mean of Boarded'], row['on Nessness']]).toEqual([
        want.n,
        near(want.m),
        want.k,
      ]);
    }
    const [both] = sql("select count(*) n from s where delay >= 10 and weather = 'gale'");
    expect(result.tallies[0].warnings.map((w) => w.says).join(' ')).toContain(
      `${both.n} records meet more than one row`,
    );
  });

  it('the groups of a key as rows add up to the whole', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'conditional',
          key: key('Vessel'),
          columns: [{}, { measure: { kind: 'sum', column: 'Vehicles' } }],
        },
      ],
    });
    expect(
      groups(result).map((g) => [g['Vessel'], g['count of records'], g['sum of Vehicles']]),
    ).toEqual(
      sql('select vessel, count(*) n, sum(vehicles) v from s group by vessel order by vessel').map(
        (r) => [r.vessel, r.n, near(r.v)],
      ),
    );
    expect(result.tallies[0].warnings.map((w) => w.code)).toEqual(['rows-add']);
    expect(result.tallies[0].footing.foots).toBe(true);
  });
});

describe('frequency', () => {
  it('by value, with cumulative counts, blanks apart', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'frequency',
          key: { column: 'Delay' },
          measures: [{ kind: 'mean', column: 'Boarded' }],
        },
      ],
    });
    const want = sql(
      'select delay, count(*) n, avg(boarded) m, sum(count(*)) over (order by delay) c from s where delay is not null group by delay',
    );
    const got = groups(result);
    expect(got.length).toBe(want.length);
    got.forEach((g, k) =>
      expect([g['Count'], g['Cumulative count'], g['mean of Boarded']]).toEqual([
        want[k].n,
        want[k].c,
        near(want[k].m),
      ]),
    );
    const [{ n }] = sql('select count(*) n from s where delay is null');
    expect(rows(result).find((r) => r['Delay'] === 'blank')?.['Count']).toBe(n);
  });

  it('in the bands of a table: each value counts once', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'frequency',
          key: {
            column: 'Delay',
            bands: {
              by: 'table',
              bands: [
                { label: 'on time', from: 0, to: 5 },
                { label: 'slight', from: 5, to: 10 },
                { label: 'late', from: 10 },
              ],
            },
          },
        },
      ],
    });
    const want = sql(
      "select case when delay < 5 then 'on time' when delay < 10 then 'slight' else 'late' end b, count(*) n from s where delay >= 0 group by b",
    );
    for (const r of want)
      expect(groups(result).find((g) => g['Delay in bands'] === r.b)?.['Count']).toBe(r.n);
    const [early] = sql('select count(*) n from s where delay < 0');
    expect(rows(result).find((g) => g['Delay in bands'] === 'in no band')?.['Count'] ?? 0).toBe(
      early.n,
    );
  });
});

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
        g[`${head}, change from the same period a year before`],
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

describe('joined and stacked columns', () => {
  it('a lookup by vessel', () => {
    const vessels = readDemo('vessels').reading.table;
    const result = answered(
      table,
      {
        lists: { fleet: {} },
        joins: [{ list: 'fleet', on: [{ column: 'Vessel' }], bring: [{ column: 'Car spaces' }] }],
        computed: [{ name: 'Free', expression: '"Car spaces" - vehicles' }],
        tallies: [
          { kind: 'ledger', groups: [key('Vessel')], measures: [{ kind: 'sum', column: 'Free' }] },
        ],
      },
      { fleet: vessels },
    );
    db.exec('drop table if exists v; create table v (vessel text, spaces real)');
    const insert = db.prepare('insert into v values (?, ?)');
    for (let i = 0; i < vessels.length; i++) {
      const [name, spaces] = [
        vessels.columns[0],
        vessels.columns.find((c) => c.name === 'Car spaces'),
      ];
      if (name.type !== 'text' || !spaces || spaces.type === 'text') throw new Error('types');
      insert.run(
        name.dictionary[name.codes[i]],
        Number.isNaN(spaces.values[i]) ? null : spaces.values[i],
      );
    }
    const want = sql(
      'select s.vessel, sum(spaces - vehicles) f, count(*) n from s left join v using (vessel) group by 1 order by 1',
    );
    expect(groups(result).map((g) => [g['Vessel'], g['Records'], g['sum of Free']])).toEqual(
      want.map((r) => [r.vessel, r.n, near(r.f ?? 0)]),
    );
    expect(result.list.records).toBe(table.length);
  });

  it('kiosks as one record a day and kiosk, and back', () => {
    const kiosks = readDemo('kiosks').reading.table;
    const names = kiosks.columns.slice(1).map((c) => c.name);
    const stack = { do: 'stack', columns: names, name: 'Kiosk', value: 'Sold' };
    const tally = {
      kind: 'ledger',
      groups: [{ column: 'Kiosk' }],
      measures: [
        { kind: 'sum', column: 'Sold' },
        { kind: 'blanks', column: 'Sold' },
      ],
    };
    const result = answered(kiosks, { reshape: [stack], tallies: [tally] });
    expect(result.list.records).toBe(kiosks.length * names.length);
    for (const column of kiosks.columns.slice(1)) {
      if (column.type === 'text') throw new Error('text');
      const there = column.values.filter((v) => v === v);
      const got = groups(result).find((g) => g['Kiosk'] === column.name) ?? {};
      expect(got['sum of Sold']).toBe(there.reduce((s, v) => s + v, 0));
      expect(got['count of blanks of Sold']).toBe(
        column.values.length - there.length - column.unread.size,
      );
    }
    const back = answered(kiosks, {
      reshape: [stack, { do: 'unstack', name: 'Kiosk', value: 'Sold' }],
      tallies: [{ kind: 'spread', columns: names, facts: [{ kind: 'values' }, { kind: 'sum' }] }],
    });
    const straight = answered(kiosks, {
      tallies: [{ kind: 'spread', columns: names, facts: [{ kind: 'values' }, { kind: 'sum' }] }],
    });
    expect(rows(back)).toEqual(rows(straight));
  });
});

describe('percentiles and spread', () => {
  it('the median by route, with its place and neighbours', () => {
    const result = answered(table, {
      tallies: [
        {
          kind: 'percentile',
          column: 'Boarded',
          key: key('Route'),
          percentiles: [50],
          ranksOf: [100],
        },
      ],
    });
    for (const g of groups(result)) {
      const values = sql(
        `select boarded b from s where route = '${g['Group'] ?? g['Route']}' and boarded is not null order by boarded`,
      ).map((r) => Number(r.b));
      const n = values.length;
      const middle = n % 2 ? values[(n - 1) / 2] : (values[n / 2 - 1] + values[n / 2]) / 2;
      expect([g['Values'], g['Value of Boarded'], g['Place in order']]).toEqual([
        n,
        middle,
        (n + 1) / 2,
      ]);
    }
    for (const g of groups(result, 'ranks')) {
      const [r] = sql(
        `select avg(boarded <= 100) p, sum(boarded < 100) u from s where route = '${g['Route']}'`,
      );
      expect([g['Percentile rank'], g['Values under it']]).toEqual([near(r.p), r.u]);
    }
  });
});

describe('behind a figure', () => {
  it('gives the very records, the skipped ones, and words', () => {
    const { base, result } = standing(table, {
      ladder: { rungs: [{ condition: sailed }], setAside: { records: [3, 5] } },
      tallies: [
        {
          kind: 'crosstab',
          down: [key('Route')],
          across: [key('Sailed on', { period: 'quarter' })],
          measures: [{ kind: 'mean', column: 'Delay' }],
        },
      ],
    });
    const { columns, rows: lines } = result.tallies[0].tables[0];
    const row = lines.findIndex((r) => r.cells[0] === 'Nessness');
    const column = columns.findIndex((c) => c.title.startsWith('Jul–Sep 2025'));
    const found = behind(base, result.tallies[0], { table: 0, row, column });
    const want = sql(
      "select n from s where cancelled = 'no' and n not in (3, 5) and route = 'Nessness' and sailed_on between '2025-07-01' and '2025-09-30'",
    );
    expect([...found.records]).toEqual(want.map((r) => r.n));
    expect(found.values + found.blanks + found.unread).toBe(want.length);
    const [mean] = sql(`select avg(delay) m from s where n in (${want.map((r) => r.n).join(',')})`);
    expect(found.figure).toEqual(near(mean.m));
    expect(found.arithmetic).toMatch(/^Sum .* ÷ \d+\.$/);
  });

  it('every figure of every kind stands on as many records as its count says', () => {
    const { base, result } = standing(table, {
      tallies: [
        { kind: 'ledger', groups: [key('Route'), key('Vessel')], measures: [] },
        { kind: 'frequency', key: { column: 'Delay', bands: { by: 'number', count: 7 } } },
        { kind: 'conditional', key: { column: 'Weather' }, columns: [{}] },
        { kind: 'ranking', groups: [key('Vessel')], by: { kind: 'records' }, top: 3 },
        {
          kind: 'periods',
          column: 'Sailed on',
          levels: ['year', 'half'],
          calendar: { yearStartsIn: 4 },
          measures: [{ kind: 'records' }],
        },
        { kind: 'spread', columns: ['Delay'], key: key('Route') },
        {
          kind: 'frequency',
          key: { column: "expression: CASE WHEN delay >= 10 THEN 'late' ELSE route END" },
        },
        { kind: 'frequency', key: { column: 'Sailed on', period: 'weekday' } },
      ],
    });
    for (const tally of result.tallies) {
      const [main] = tally.tables;
      const column = main.columns.findIndex((c) => c.measure?.kind === 'records');
      main.rows.forEach((line, row) => {
        expect([
          tally.says,
          row,
          behind(base, tally, { table: 0, row, column }).records.length,
        ]).toEqual([tally.says, row, line.cells[column]]);
      });
    }
  });
});

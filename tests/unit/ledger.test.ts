import type { Database } from 'better-sqlite3';
import fc from 'fast-check';
import { beforeAll, describe, expect, it } from 'vitest';
import { setSort } from '$lib/core/bench/edits';
import { NumberFormat } from '$lib/core/table/format';
import { meanWithDeviation } from '$lib/core/tally/answer/figureText';
import { newBench } from '$lib/core/bench/newBench';
import type { Bench } from '$lib/core/bench/document';
import type { Condition } from '$lib/core/selection/condition';
import type { MeasureKind } from '$lib/core/measure/measure';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { readDemo } from '../support/demo';
import { OpenBench, spec, type Overview } from '../support/bench';
import { noRecipe } from '../support/smallList';
import { sailingsInSql } from '../support/sql';

const group = (column: string, more: object = {}) => ({
  column,
  loose: true,
  order: { by: 'label' as const, descending: false },
  ...more,
});
const ge10: Condition = {
  kind: 'leaf',
  column: 'delay',
  not: false,
  test: { test: 'compare', op: 'ge', value: 10 },
};

/** Figures of every group line at the deepest level, with full values. */
function figures(
  engine: OpenBench,
  doc: Bench,
): { overview: Overview; rows: string[][]; heads: string[] } {
  const { view } = doc.tray[0];
  view.showDown = spec(doc).groups.length;
  const overview = engine.show(doc);
  const lines = engine.ask('copy', { values: 'full' }).text.trim().split('\r\n');
  const [heads, ...rows] = lines.map((l) => l.split('\t'));
  return { overview, rows, heads };
}

describe('the demo against SQL', () => {
  let engine: OpenBench;
  let fresh: () => Bench;
  let db: Database;
  beforeAll(() => {
    const { recipe, reading } = readDemo('sailings');
    engine = new OpenBench(reading.table, recipe, 'Sailings');
    fresh = () => newBench(reading.table, 1);
    db = sailingsInSql();
  });

  it('sums, means, counts, lowest and highest by two keys, under a condition', () => {
    const doc = fresh();
    const kinds: MeasureKind[] = [
      'sum',
      'mean',
      'min',
      'max',
      'values',
      'blanks',
      'unread',
      'distinct',
    ];
    doc.ladder.rungs = [
      {
        id: 'a',
        on: true,
        condition: {
          kind: 'leaf',
          column: 'boarded',
          not: false,
          test: { test: 'compare', op: 'ge', value: 50 },
        },
      },
    ];
    spec(doc).groups = [group('route'), group('vessel')];
    spec(doc).measures = kinds.map((kind) => ({ kind, column: 'delay' }));
    const { rows } = figures(engine, doc);
    const expected = db
      .prepare(
        `select route, vessel, count(*) n, sum(delay) s, avg(delay) m, min(delay) lo, max(delay) hi, count(delay) v, count(*) - count(delay) b, count(distinct delay) d
         from s where boarded >= 50 group by route, vessel order by route, vessel`,
      )
      .all() as {
      route: string;
      vessel: string;
      n: number;
      s: number;
      m: number;
      lo: number;
      hi: number;
      v: number;
      b: number;
      d: number;
    }[];
    const inner = rows.filter((r) => r[1] !== '' && r[0] !== 'Grand total');
    expect(inner.map((r) => r.slice(0, 2))).toEqual(expected.map((e) => [e.route, e.vessel]));
    inner.forEach((row, k) => {
      const at = row.indexOf(String(expected[k].n));
      expect(at).toBeGreaterThan(0);
      const numbers = row
        .slice(at + 1)
        .filter((c) => c !== '')
        .map(Number);
      const e = expected[k];
      const [sum, mean, lo, hi, values, blanks, unread, distinct] = numbers;
      expect([sum, lo, hi, values, blanks + unread, distinct]).toEqual([
        e.s,
        e.lo,
        e.hi,
        e.v,
        e.b,
        e.d,
      ]);
      expect(mean).toBeCloseTo(e.m, 12);
    });
  });

  it('periods and conditions on dates', () => {
    const doc = fresh();
    doc.ladder.rungs = [
      {
        id: 'a',
        on: true,
        condition: {
          kind: 'leaf',
          column: 'sailed_on',
          not: false,
          test: { test: 'season', of: 'weekday', values: [6, 7] },
        },
      },
    ];
    spec(doc).groups = [group('sailed_on', { period: 'quarter' })];
    spec(doc).measures = [{ kind: 'sum', column: 'fares_taken' }];
    const { rows } = figures(engine, doc);
    const expected = db
      .prepare(
        `select count(*) n, sum(fares) f from s where strftime('%w', sailed_on) in ('0', '6')
         group by strftime('%Y', sailed_on), (strftime('%m', sailed_on) + 2) / 3 order by min(sailed_on)`,
      )
      .all() as { n: number; f: number }[];
    expect(rows.slice(0, -1).map((r) => r.filter((c) => /^[\d.]+$/.test(c)).map(Number))).toEqual(
      expected.map((e) => [e.n, e.f]),
    );
  });

  it('and, or and not', () => {
    const doc = fresh();
    const gale: Condition = {
      kind: 'leaf',
      column: 'weather',
      not: false,
      test: { test: 'is', values: ['gale', 'fog'], exact: true },
    };
    const ness: Condition = {
      kind: 'leaf',
      column: 'route',
      not: true,
      test: { test: 'contains', text: 'ness', exact: false },
    };
    doc.ladder.rungs = [
      {
        id: 'a',
        on: true,
        condition: {
          kind: 'any',
          not: false,
          parts: [
            { kind: 'all', not: false, parts: [ge10, gale] },
            { kind: 'all', not: true, parts: [ness, { ...gale, not: true }] },
          ],
        },
      },
    ];
    const { n } = db
      .prepare(
        `select count(*) n from s where (delay >= 10 and weather in ('gale', 'fog')) or not (route not like '%ness%' and not weather in ('gale', 'fog'))`,
      )
      .get() as { n: number };
    expect(figures(engine, doc).overview.counted.records).toBe(n);
  });

  it('orders groups by a measure, and by hand', () => {
    const doc = fresh();
    spec(doc).groups = [group('route', { order: { by: 'measure', measure: 0, descending: true } })];
    spec(doc).measures = [{ kind: 'sum', column: 'fares_taken' }];
    const names = (): string[] =>
      figures(engine, doc)
        .rows.slice(0, -1)
        .map((r) => r[0]);
    const expected = (
      db.prepare('select route from s group by route order by sum(fares) desc').all() as {
        route: string;
      }[]
    ).map((r) => r.route);
    expect(names()).toEqual(expected);
    spec(doc).groups = [
      group('route', { order: { by: 'hand', labels: ['Outer Freight', 'Nessness'] } }),
    ];
    expect(names()).toEqual(['Outer Freight', 'Nessness', 'Holm and Inner Isles', 'Skerry Bank']);
  });

  it('first and last follow the order of records', () => {
    const doc = fresh();
    spec(doc).sort = [{ column: 'fares_taken', descending: true, blanks: 'last' }];
    spec(doc).measures = [
      { kind: 'first', column: 'vessel' },
      { kind: 'last', column: 'fares_taken' },
      { kind: 'mode', column: 'weather' },
    ];
    const { rows } = figures(engine, doc);
    const total = rows[rows.length - 1];
    const first = (
      db.prepare('select vessel from s order by fares desc limit 1').get() as { vessel: string }
    ).vessel;
    const mode = (
      db
        .prepare(
          'select weather from s where weather is not null group by weather order by count(*) desc limit 1',
        )
        .get() as { weather: string }
    ).weather;
    expect(total).toEqual(expect.arrayContaining([first, '0', mode]));
  });

  it('behind: the figure, its records, its blanks, and what explains a known total', () => {
    const doc = fresh();
    spec(doc).groups = [group('route')];
    spec(doc).measures = [
      { kind: 'mean', column: 'delay' },
      { kind: 'sum', column: 'fares_taken' },
    ];
    engine.show(doc);
    const place = engine.place(['Nessness'], 'm1');
    const behind = engine.ask('behind', { place });
    const sql = db
      .prepare("select count(*) n, count(delay) v, sum(delay) s from s where route = 'Nessness'")
      .get() as { n: number; v: number; s: number };
    expect(behind).toMatchObject({
      records: sql.n,
      values: sql.v,
      arithmetic: `Sum ${sql.s.toLocaleString('en')} ÷ ${sql.v.toLocaleString('en')}.`,
    });
    expect(behind.blanks + behind.unread).toBe(sql.n - sql.v);
    const fares = engine.place([], 'm2', 'counted');
    const total = (db.prepare('select sum(fares) f from s').get() as { f: number }).f;
    const absurd = (db.prepare('select max(fares) f from s').get() as { f: number }).f;
    const said = (known: number): string =>
      engine
        .ask('check', { place: fares, known })
        .explanations.map((e) => e.words)
        .join(' ');
    expect(said(total)).toContain('It agrees');
    expect(said(total - absurd)).toContain('without it the totals agree');
    expect(said(total - 2 * absurd)).toContain('sign may be turned');
    expect(said(total + 9 * absurd)).toContain('decimal point');
  });

  it('warns where few records carry a mean', () => {
    const doc = fresh();
    doc.ladder.rungs = [
      {
        id: 'a',
        on: true,
        condition: {
          kind: 'leaf',
          column: 'delay',
          not: false,
          test: { test: 'extreme', side: 'highest', k: 5, of: 'records' },
        },
      },
    ];
    spec(doc).measures = [{ kind: 'mean', column: 'delay' }];
    engine.show(doc);
    expect(engine.ask('behind', { place: engine.place([], 'm1') }).warning).toMatch(
      /^Only \d values: one of \d+ moves this mean/,
    );
  });

  it('copies no folded record, and plain labels', () => {
    const doc = fresh();
    spec(doc).groups = [group('route'), group('vessel')];
    doc.tray[0].view.showDown = 1;
    engine.show(doc);
    const { text, html, rows } = engine.ask('copy', { values: 'shown' });
    expect(rows).toBe(5);
    expect(text.split('\r\n')[1]).toMatch(/^Holm and Inner Isles\t\t/);
    expect(html.match(/<tr>/g)).toHaveLength(6);
  });
});

describe('properties of the ledger', () => {
  const row = fc.tuple(
    fc.option(fc.constantFrom('a', 'b', 'c')),
    fc.option(fc.constantFrom('x', 'y')),
    fc.option(fc.integer({ min: -50, max: 50 })),
  );
  const rowsOf = fc.array(row, { minLength: 1, maxLength: 50 });
  const tableOf = (
    rows: readonly (readonly [string | null, string | null, number | null])[],
  ): Table => ({
    length: rows.length,
    columns: [
      textColumn(
        'p',
        rows.map((r) => r[0]),
      ),
      textColumn(
        'q',
        rows.map((r) => r[1]),
      ),
      scalarColumn(
        'n',
        'number',
        rows.map((r) => r[2]),
      ),
    ],
  });
  const KINDS: MeasureKind[] = [
    'sum',
    'mean',
    'median',
    'min',
    'max',
    'sd',
    'values',
    'blanks',
    'distinct',
    'mode',
    'iqr',
    'shareOfTotal',
  ];
  const docFor = (table: Table): Bench => {
    const doc = newBench(table, 1);
    spec(doc).groups = [group('p', { loose: false }), group('q', { loose: false })];
    spec(doc).measures = KINDS.map((kind) => ({ kind, column: 'n' }));
    return doc;
  };
  const shown = (table: Table, doc: Bench): string[][] =>
    figures(new OpenBench(table, noRecipe, 'T'), doc).rows;

  /** Long decimals to ten digits: the last ones may differ with the order of addition. */
  const near = (all: string[][]): string[][] =>
    all.map((r) =>
      r.map((c) => (/^-?\d/.test(c) && !Number.isNaN(Number(c)) ? Number(c).toPrecision(10) : c)),
    );

  it('every table foots', () => {
    fc.assert(
      fc.property(rowsOf, (rows) => {
        const table = tableOf(rows);
        const { overview } = figures(new OpenBench(table, noRecipe, 'T'), docFor(table));
        expect(overview.footing.foots).toBe(true);
      }),
    );
  });

  it('the order of the records in the file never changes a figure', () => {
    fc.assert(
      fc.property(rowsOf, (rows) => {
        const table = tableOf(rows);
        const turned = tableOf([...rows].reverse());
        expect(near(shown(turned, docFor(turned)))).toEqual(near(shown(table, docFor(table))));
      }),
    );
  });

  it('narrowing and then grouping equals grouping the narrowed records alone', () => {
    fc.assert(
      fc.property(rowsOf, fc.integer({ min: -50, max: 50 }), (rows, limit) => {
        const table = tableOf(rows);
        const narrowed = docFor(table);
        narrowed.ladder.rungs = [
          {
            id: 'a',
            on: true,
            condition: {
              kind: 'leaf',
              column: 'n',
              not: false,
              test: { test: 'compare', op: 'ge', value: limit },
            },
          },
        ];
        const kept = rows.filter((r) => r[2] !== null && r[2] >= limit);
        const alone = tableOf(kept);
        expect(near(shown(table, narrowed))).toEqual(near(shown(alone, docFor(alone))));
      }),
    );
  });

  it('setting aside and putting back leaves everything as it was', () => {
    fc.assert(
      fc.property(rowsOf, fc.nat(), (rows, pick) => {
        const table = tableOf(rows);
        const engine = new OpenBench(table, noRecipe, 'T');
        const before = figures(engine, docFor(table)).rows;
        const aside = docFor(table);
        aside.ladder.setAside.records = [1 + (pick % rows.length)];
        const { overview } = figures(engine, aside);
        expect(overview.counted.records).toBe(rows.length - 1);
        expect(overview.foot.map((f) => f.records)).toEqual([
          rows.length,
          rows.length,
          rows.length - 1,
        ]);
        expect(figures(engine, docFor(table)).rows).toEqual(before);
      }),
    );
  });

  it('every line can be asked for, at any fold, and names its place', () => {
    fc.assert(
      fc.property(
        rowsOf,
        fc.integer({ min: 0, max: 3 }),
        fc.constantFrom('above' as const, 'below' as const),
        (rows, showDown, totals) => {
          const table = tableOf(rows);
          const doc = docFor(table);
          doc.tray[0].view.totals = totals;
          doc.tray[0].view.showDown = showDown;
          const engine = new OpenBench(table, noRecipe, 'T');
          const overview = engine.show(doc);
          const lines = engine.lines(0, 2000);
          expect(lines).toHaveLength(overview.lines);
          const records = lines.filter((l) => l.kind === 'record');
          if (showDown === 3) {
            expect(records.map((l) => l.record).sort((a, b) => a - b)).toEqual(
              rows.map((_, i) => i),
            );
            for (const l of records.slice(0, 5))
              expect(lines[engine.ask('locateRecord', { record: l.record }).line].record).toBe(
                l.record,
              );
          } else expect(records).toHaveLength(0);
          for (const l of lines.filter((x) => x.kind === 'group').slice(0, 4)) {
            const { line } = engine.ask('locate', { keys: l.keys });
            expect(lines[line].keys).toEqual(l.keys);
          }
        },
      ),
    );
  });
});

describe('edges', () => {
  it('no records, and one', () => {
    for (const n of [0, 1]) {
      const table: Table = {
        length: n,
        columns: [
          scalarColumn(
            'n',
            'number',
            Array.from({ length: n }, () => 5),
          ),
        ],
      };
      const doc = newBench(table, 1);
      spec(doc).measures = [
        { kind: 'sum', column: 'n' },
        { kind: 'mean', column: 'n' },
        { kind: 'sd', column: 'n' },
      ];
      const overview = new OpenBench(table, noRecipe, 'T').show(doc);
      expect(overview.foot[2].cells.filter(Boolean)).toEqual(
        n ? ['5', '5.0', 'none'] : ['0', 'none', 'none'],
      );
    }
  });

  it('a running total goes on from record to record and leaves out what was set aside', () => {
    const table: Table = {
      length: 3,
      columns: [textColumn('t', ['a', 'b', 'c']), scalarColumn('n', 'number', [1, 2, 4])],
    };
    const doc = newBench(table, 1);
    spec(doc).measures = [{ kind: 'running', column: 'n' }];
    doc.ladder.setAside.records = [2];
    const engine = new OpenBench(table, noRecipe, 'T');
    engine.show(doc);
    expect(engine.lines(0, 3).map((l) => l.cells[0])).toEqual(['1', '', '5']);
  });

  it('a step whose column is gone is switched off and says so', () => {
    const table: Table = { length: 1, columns: [scalarColumn('n', 'number', [1])] };
    const doc = newBench(table, 1);
    doc.ladder.rungs = [{ id: 'a', on: true, condition: ge10 }];
    const overview = new OpenBench(table, noRecipe, 'T').show(doc);
    expect(overview.rungs[0]).toMatchObject({ on: false });
    expect(overview.rungs[0].fault).toMatch(/There is no column “delay”/);
    expect(overview.counted.records).toBe(1);
  });

  it('a correction is counted, and the list itself stays as it was', () => {
    const { recipe, reading } = readDemo('sailings');
    const unread = reading.table.columns.find((c) => c.id === 'delay');
    const [record, was] = unread && unread.type !== 'text' ? [...unread.unread][0] : [0, ''];
    const engine = new OpenBench(reading.table, recipe, 'S');
    const doc = newBench(reading.table, 1);
    spec(doc).measures = [{ kind: 'sum', column: 'delay' }];
    const sum = (): number =>
      Number(engine.show(structuredClone(doc)).foot[2].cells.find(Boolean)?.replaceAll(',', ''));
    const before = sum();
    doc.corrections = [{ record: record + 1, column: 'delay', text: '100', was }];
    expect(sum()).toBe(before + 100);
    doc.corrections = [];
    expect(sum()).toBe(before);
  });
});

describe('figures in pairs and shares', () => {
  const table: Table = {
    length: 5,
    columns: [
      textColumn('p', ['a', 'a', 'a', 'b', null]),
      scalarColumn('n', 'number', [2, 4, 9, 7, 1]),
    ],
  };
  const shownFoot = (change: (doc: Bench) => void): string[] => {
    const doc = newBench(table, 1);
    change(doc);
    return new OpenBench(table, noRecipe, 'T').show(doc).foot[2].cells;
  };

  it('a mean can be shown with its deviation, both to the deviation’s place', () => {
    // 2 4 9 7 1: mean 4.6, standard deviation 3.361…
    const cells = (deviation: 1 | 2): string[] =>
      shownFoot((doc) => {
        spec(doc).measures = [{ kind: 'mean', column: 'n' }];
        doc.formats.n = { ...NumberFormat.parse({}), deviation };
      });
    expect(cells(1)).toContain('5 ± 3');
    expect(cells(2)).toContain('4.6 ± 3.4');
    expect(meanWithDeviation(1234.56, 321, 1, NumberFormat.parse({}))).toBe('1,200 ± 300');
    expect(meanWithDeviation(5, 0, 1, NumberFormat.parse({ decimals: 1 }))).toBe('5.0 ± 0');
    expect(meanWithDeviation(NaN, NaN, 1, NumberFormat.parse({}))).toBe('none');
  });

  it('shares of records and of sums add up to the whole', () => {
    const engine = new OpenBench(table, noRecipe, 'T');
    const doc = newBench(table, 1);
    spec(doc).groups = [group('p')];
    spec(doc).measures = [
      { kind: 'recordsOfTotal' },
      { kind: 'recordsOfParent' },
      { kind: 'shareOfTotal', column: 'n' },
    ];
    doc.tray[0].view.showDown = 1;
    engine.show(doc);
    const lines = engine.lines(0, 9);
    const cells = lines.map((l) => [l.label, ...l.cells.filter(Boolean)]);
    // Σn = 23: a has 15, b 7, the blank group 1.
    expect(cells).toEqual([
      ['a', '65.2 %', '60.0 %', '60.0 %'],
      ['b', '30.4 %', '20.0 %', '20.0 %'],
      ['blank', '4.3 %', '20.0 %', '20.0 %'],
    ]);
  });

  it('an order given by hand stays with its column', () => {
    const doc = setSort(newBench(table, 1), [
      { column: 'p', descending: false, blanks: 'last', hand: ['b', 'a'] },
    ]);
    expect(setSort(doc, []).orders).toEqual({ p: ['b', 'a'] });
  });
});

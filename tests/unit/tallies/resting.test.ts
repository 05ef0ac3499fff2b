import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import type { Mark, TallyResult } from '$lib/core/tally/answer/result';
import { near, sql, table } from '../../support/againstSql';
import { answered, behind, answeredOn } from '../../support/ask';

const marksOf = (tally: TallyResult, kind: Mark['kind'] = 'rests'): [number, Mark][] =>
  tally.tables[0].rows.flatMap((row, k) =>
    (row.marks ?? []).filter((m) => m.kind === kind).map((m): [number, Mark] => [k, m]),
  );
const FARES = { kind: 'sum', column: 'Fares taken' };

describe('what a figure rests on', () => {
  it('the rise of fares in 2025 rests on one record: 5.4 % without it, not 21.3 %', () => {
    const { tallies } = answered(table, {
      tallies: [
        {
          kind: 'periods',
          column: 'Sailed on',
          levels: ['year'],
          measures: [FARES],
          against: ['yearBefore'],
        },
      ],
    });
    const [{ columns, rows }] = tallies[0].tables;
    const at = columns.findIndex((c) => c.key === 'm1.yearBeforeChange');
    const year = rows.find((r) => r.cells[0] === '2025');
    const mark = year?.marks?.find((m) => m.column === at);
    const [want] =
      sql(`with y as (select substr(sailed_on, 1, 4) y, sum(fares) s from s group by 1),
      far as (select n, fares from s where sailed_on like '2025%' order by fares desc limit 1)
      select (select n + 1 from far) record, b.s / a.s - 1 change, (b.s - (select fares from far)) / a.s - 1 without
      from y a, y b where a.y = '2024' and b.y = '2025'`);
    expect(want.change).toBeCloseTo(0.213, 3);
    expect(want.without).toBeCloseTo(0.054, 3);
    expect(year?.cells[at]).toEqual(near(want.change));
    expect(mark).toMatchObject({
      kind: 'rests',
      record: want.record,
      without: near(want.without),
    });
  });

  it('a vessel is second in 2025 by one record, and fifth without it', () => {
    const { tallies } = answered(table, {
      tallies: [
        {
          kind: 'ranking',
          groups: [{ column: 'Vessel' }],
          by: FARES,
          change: { column: 'Sailed on', period: 'year', before: '2024', after: '2025' },
        },
      ],
    });
    const [{ columns, rows }] = tallies[0].tables;
    const after = columns.findIndex((c) => c.key === 'placeAfter');
    const row = rows.find((r) => r.cells[1] === 'Fulmar');
    expect(row?.cells[after]).toBe(2);
    expect(row?.marks?.find((m) => m.column === after)).toMatchObject({
      kind: 'rests',
      without: 5,
    });
  });

  it('a share rests on the record that its figure rests on: the record leaves the whole as well', () => {
    const { tallies } = answered(table, {
      tallies: [
        { kind: 'ranking', groups: [{ column: 'Vessel' }], by: FARES },
        {
          kind: 'crosstab',
          down: [{ column: 'Vessel' }],
          across: [{ column: 'Cancelled' }],
          measures: [FARES],
          shares: ['column', 'row'],
        },
      ],
    });
    const [want] =
      sql(`with far as (select * from s where vessel = 'Fulmar' order by fares desc limit 1)
      select (sum(case when vessel = 'Fulmar' then fares end) - (select fares from far))
        / (sum(fares) - (select fares from far)) without from s`);
    const ranked = tallies[0].tables[0].rows.find((r) => r.cells[1] === 'Fulmar');
    const share = tallies[0].tables[0].columns.findIndex((c) => c.key === 'share');
    expect(ranked?.marks?.find((m) => m.column === share)).toMatchObject({
      kind: 'rests',
      without: near(want.without),
    });
    const { rows, columns } = tallies[1].tables[0];
    const crossed = rows.find((r) => r.cells[0] === 'Fulmar');
    const of = (key: string): unknown =>
      crossed?.marks?.find((m) => m.column === columns.findIndex((c) => c.key === key));
    expect(of('all.m1-column')).toMatchObject({ kind: 'rests', without: near(want.without) });
    // All of the row is the whole of the row, with the record or without.
    expect(of('all.m1-row')).toBeUndefined();
  });

  const small: Table = {
    length: 11,
    columns: [
      textColumn('G', ['a', 'a', 'a', 'a', 'a', 'b', 'b', 'b', 'b', 'c', 'c']),
      scalarColumn('V', 'number', [1, 2, 3, 4, 90, 1, 1, 1, 97, 5, NaN]),
    ],
  };

  it('only sums of at least five values are marked, with the figure without the record', () => {
    const { tallies } = answered(small, {
      tallies: [
        { kind: 'ledger', groups: [{ column: 'G' }], measures: [{ kind: 'sum', column: 'V' }] },
      ],
    });
    const found = marksOf(tallies[0]);
    // a: 90 of 100 at record 5; the whole: 97 of 205 at record 9; b has four values, c one.
    expect(new Set(found.map(([row]) => tallies[0].tables[0].rows[row].cells[0]))).toEqual(
      new Set(['Grand total', 'a']),
    );
    expect(found.find(([row]) => row > 0)?.[1]).toMatchObject({ record: 5, without: 10 });
    expect(found.find(([row]) => row === 0)?.[1]).toMatchObject({ record: 9, without: 108 });
  });

  it('means are marked for a record that is far off, never a mean of a few', () => {
    const list = (values: readonly number[]): Table => ({
      length: values.length,
      columns: [scalarColumn('Late', 'number', [...values])],
    });
    const marked = (values: readonly number[]): Mark[] => {
      const tally = { kind: 'ledger', groups: [], measures: [{ kind: 'mean', column: 'Late' }] };
      return marksOf(answered(list(values), { tallies: [tally] }).tallies[0]).map(
        ([, mark]) => mark,
      );
    };
    // Of n values none lies more than (n − 1) ÷ √n deviations off: 2.04 of six, 2.85 of ten.
    expect(marked([1, 2, 3, 2, 1, 1000])).toEqual([]);
    expect(marked([...Array<number>(9).fill(2), 1000])).toEqual([]);
    expect(marked([...Array.from({ length: 11 }, (_, k) => k % 3), 1000])).toMatchObject([
      { kind: 'rests', record: 12, without: expect.closeTo(10 / 11, 9) },
    ]);
    // Far off, and yet moving the mean of many by little.
    expect(marked([...Array.from({ length: 400 }, (_, k) => (k % 2) * 2), 5])).toEqual([]);
  });

  it('behind a figure it is told whether it is much or not', () => {
    const { input, result } = answeredOn(table, {
      tallies: [{ kind: 'ledger', groups: [{ column: 'Vessel' }], measures: [FARES] }],
    });
    const told = behind(input, result.tallies[0], { table: 0, row: ['Ironholm'], column: 'm1' });
    const [far] = sql(
      "select n, fares from s where vessel = 'Ironholm' order by abs(fares) desc, n limit 1",
    );
    expect(told.rests).toMatchObject({ record: far.n, much: false });
  });

  it('no other record changes a sum or a mean by more', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({ g: fc.constantFrom('a', 'b'), v: fc.integer({ min: -50, max: 50 }) }),
          {
            minLength: 5,
            maxLength: 40,
          },
        ),
        fc.constantFrom('sum', 'mean'),
        (list, kind) => {
          const of: Table = {
            length: list.length,
            columns: [
              textColumn(
                'G',
                list.map((r) => r.g),
              ),
              scalarColumn(
                'V',
                'number',
                list.map((r) => r.v),
              ),
            ],
          };
          const { input, result } = answeredOn(of, {
            tallies: [
              { kind: 'ledger', groups: [{ column: 'G' }], measures: [{ kind, column: 'V' }] },
            ],
          });
          const { rests } = behind(input, result.tallies[0], { table: 0, row: [], column: 'm1' });
          const figure = (values: readonly number[]): number => {
            const sum = values.reduce((s, v) => s + v, 0);
            return kind === 'sum' ? sum : sum / values.length;
          };
          const all = list.map((r) => r.v);
          const moves = all.map((_, k) =>
            Math.abs(figure(all) - figure(all.filter((_, j) => j !== k))),
          );
          expect(moves[rests?.record ?? -1]).toBeCloseTo(Math.max(...moves), 9);
        },
      ),
    );
  });

  it('is told of each share of it as well, by what the share is of', () => {
    const list: Table = {
      length: 12,
      columns: [
        textColumn(
          'Route',
          Array.from({ length: 12 }, (_, k) => (k < 6 ? 'Holm' : 'Ness')),
        ),
        textColumn(
          'Vessel',
          Array.from({ length: 12 }, (_, k) => (k % 6 === 5 ? 'Tern' : 'Auk')),
        ),
        scalarColumn('Fares', 'number', [1, 1, 1, 1, 900, 1, 1, 1, 1, 1, 1, 1], { unit: '£' }),
      ],
    };
    const { tallies } = answered(list, {
      tallies: [
        {
          kind: 'crosstab',
          down: [{ column: 'Route' }],
          across: [{ column: 'Vessel' }],
          measures: [{ kind: 'sum', column: 'Fares' }],
          shares: ['row', 'column'],
        },
      ],
    });
    const [{ rows, labels }] = tallies[0].tables;
    const holm = rows.find(({ cells }) => cells[0] === 'Holm');
    const marks = (holm?.marks ?? []).filter(
      ({ kind, column }) => kind === 'rests' && (column ?? 0) < labels + 3,
    );
    // 904 of the row's 905 and of the column's 909; without the 900: 4 of 5, and 4 of 9.
    expect(marks.map(({ column, without, record }) => [column, without, record])).toEqual([
      [labels, 4, 5],
      [labels + 1, 4 / 5, 5],
      [labels + 2, 4 / 9, 5],
    ]);
  });
});

describe('a sum that leaves records out', () => {
  const list = (values: readonly number[]): Table => ({
    length: values.length,
    columns: [
      textColumn(
        'G',
        values.map((_, k) => 'abc'[k % 3]),
      ),
      scalarColumn(
        'D',
        'date',
        values.map((_, k) => 19_725 + 31 * (k % 4)),
      ),
      scalarColumn('V', 'number', [...values]),
    ],
  });
  const sums = { measures: [{ kind: 'sum', column: 'V' }] };
  const KINDS = {
    ledger: { groups: [{ column: 'G' }], ...sums },
    periods: { column: 'D', levels: ['quarter', 'month'], ...sums },
    crosstab: { down: [{ column: 'G' }], across: [{ column: 'D', period: 'month' }], ...sums },
    frequency: { key: { column: 'G' }, ...sums },
    ranking: { groups: [{ column: 'G' }], by: { kind: 'sum', column: 'V' } },
    conditional: { key: { column: 'G' }, columns: [{ measure: { kind: 'sum', column: 'V' } }] },
    growth: { series: { column: 'D', period: 'month', measure: { kind: 'sum', column: 'V' } } },
    contributions: {
      measure: { kind: 'sum', column: 'V' },
      by: [{ column: 'G' }],
      between: {
        of: 'groups',
        key: { column: 'D', period: 'month' },
        from: 'Jan 2024',
        to: 'Feb 2024',
      },
      top: 1,
    },
  };

  it.each(Object.entries(KINDS))('says so at every figure, and at no other: %s', (kind, spec) => {
    fc.assert(
      fc.property(
        fc.array(fc.oneof(fc.integer({ min: -9, max: 9 }), fc.constant(NaN)), {
          minLength: 4,
          maxLength: 40,
        }),
        (values) => {
          const { result, input } = answeredOn(list(values), { tallies: [{ kind, ...spec }] });
          const [tally] = result.tallies;
          for (const table of tally.tables)
            table.rows.forEach((row, r) => {
              table.columns.forEach(({ key, measure }, c) => {
                if (measure?.kind !== 'sum') return;
                const of = behind(input, tally, { table: table.name, row: r, column: key });
                const said = row.marks?.find((m) => m.kind === 'gaps' && m.column === c)?.short;
                const gaps = of.values > 0 && of.values < of.records.length;
                expect(said, `${row.cells.join(', ')} at ${key}`).toBe(
                  gaps ? `${of.values} of ${of.records.length}` : undefined,
                );
              });
            });
        },
      ),
      { numRuns: 60 },
    );
  });
});

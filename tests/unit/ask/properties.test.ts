import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { AskResult } from '$lib/core/ask/result';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { answered, behind, answeredOn } from '../../support/ask';
import { day } from '../../support/smallList';

describe('properties of every table', () => {
  const record = fc.record({
    k: fc.constantFrom('a', 'b', 'c', null),
    g: fc.constantFrom('x', 'y', null),
    v: fc.option(fc.integer({ min: -30, max: 60 }), { nil: null }),
    d: fc.integer({ min: day('2024-01-01'), max: day('2025-12-31') }),
  });
  const records = fc.array(record, { minLength: 1, maxLength: 30 });
  type Rec = { k: string | null; g: string | null; v: number | null; d: number };
  const tableOf = (all: readonly Rec[]): Table => ({
    length: all.length,
    columns: [
      textColumn(
        'k',
        all.map((r) => r.k),
      ),
      textColumn(
        'g',
        all.map((r) => r.g),
      ),
      scalarColumn(
        'v',
        'number',
        all.map((r) => r.v),
      ),
      scalarColumn(
        'd',
        'date',
        all.map((r) => r.d),
      ),
    ],
  });
  const measures = [
    { kind: 'sum', column: 'v' },
    { kind: 'mean', column: 'v' },
    { kind: 'distinct', column: 'k' },
    { kind: 'median', column: 'v' },
  ];
  const tallies = [
    {
      kind: 'crosstab',
      down: [{ column: 'k' }],
      across: [{ column: 'g' }],
      measures,
      shares: ['row', 'total'],
    },
    {
      kind: 'periods',
      column: 'd',
      levels: ['year', 'half', 'month'],
      measures,
      against: ['previous', 'yearBefore'],
      calendar: { yearStartsIn: 7 },
    },
    {
      kind: 'frequency',
      key: { column: 'v', bands: { by: 'width', width: 7, origin: 3 } },
      measures,
    },
    { kind: 'frequency', key: { column: 'v', bands: { by: 'equalCount', count: 4 } } },
    {
      kind: 'conditional',
      key: { column: 'g' },
      columns: measures.map((measure) => ({ measure })),
    },
    {
      kind: 'ranking',
      groups: [{ column: 'k' }, { column: 'g' }],
      within: 1,
      by: measures[0],
      ties: 'noGap',
    },
    { kind: 'spread', columns: ['v'], key: { column: 'k' } },
    { kind: 'percentile', column: 'v', key: { column: 'g' }, percentiles: [0, 33, 100] },
  ];
  const plain = (result: AskResult) =>
    result.tallies.map((t) =>
      t.tables.map((table) =>
        table.rows.map((r) =>
          r.cells.map((c) => (typeof c === 'number' ? Number(c.toPrecision(10)) : c)),
        ),
      ),
    );

  it('the order of records never changes it; it foots; each band counts each value once', () => {
    fc.assert(
      fc.property(records, (all) => {
        const result = answered(tableOf(all), { tallies });
        expect(plain(answered(tableOf([...all].reverse()), { tallies }))).toEqual(plain(result));
        for (const t of result.tallies)
          expect([t.words, t.footing.failure]).toEqual([t.words, null]);
        for (const k of [2, 3]) {
          const { rows: lines, columns } = result.tallies[k].tables[0];
          const at = columns.findIndex((c) => c.key === 'count');
          expect(lines.slice(1).reduce((s, r) => s + Number(r.cells[at]), 0)).toBe(all.length);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('narrowing and then reckoning equals reckoning the narrowed records alone', () => {
    fc.assert(
      fc.property(records, fc.integer({ min: -30, max: 60 }), (all, limit) => {
        const rung = { condition: { kind: 'expression', expression: `v >= ${limit}` } };
        // What is covered in part is told by the dates of the whole list: both lists cover the same days.
        const ends = ['2024-01-01', '2025-12-31'].map((d) => ({
          k: 'a',
          g: 'x',
          v: 60,
          d: day(d),
        }));
        const whole = [...all, ...ends];
        const kept = whole.filter((r) => r.v !== null && r.v >= limit);
        // The row of all says what it is all of: what counts of the one, all there is of the other.
        const narrowed = plain(answered(tableOf(whole), { ladder: { rungs: [rung] }, tallies }));
        const text = JSON.stringify(narrowed).replaceAll('"All counted"', '"All records"');
        expect(JSON.parse(text)).toEqual(
          JSON.parse(JSON.stringify(plain(answered(tableOf(kept), { tallies })))),
        );
      }),
      { numRuns: 60 },
    );
  });

  it('every group stands on as many records as it counts', () => {
    fc.assert(
      fc.property(records, (all) => {
        const { input, result } = answeredOn(tableOf(all), { tallies });
        for (const t of result.tallies) {
          const [main] = t.tables;
          const column = main.columns.findIndex((c) => c.measure?.kind === 'records' && !c.where);
          if (column < 0) continue;
          main.rows.forEach((r, row) =>
            expect([
              t.kind,
              row,
              behind(input, t, { table: 0, row, column }).records.length,
            ]).toEqual([t.kind, row, r.cells[column]]),
          );
        }
      }),
      { numRuns: 40 },
    );
  });
});

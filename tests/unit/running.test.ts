import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { answered, behind, answeredOn } from '../support/ask';

const RUNNING = { kind: 'running', column: 'n' };
const SUM = { kind: 'sum', column: 'n' };

const tableOf = (rows: readonly (readonly [string, string, number | null])[]): Table => ({
  length: rows.length,
  columns: [
    textColumn(
      'route',
      rows.map(([route]) => route),
    ),
    textColumn(
      'vessel',
      rows.map(([, vessel]) => vessel),
    ),
    scalarColumn(
      'n',
      'number',
      rows.map(([, , n]) => n),
    ),
  ],
});

const SAILINGS = tableOf([
  ['Holm', 'Fulmar', 1],
  ['Ness', 'Auk', 10],
  ['Holm', 'Rover', 2],
  ['Ness', 'Tern', null],
  ['Skerry', 'Auk', 100],
]);

/** Label, sum and running total of each group. */
const rows = (table: Table, groups: Record<string, unknown>[]): unknown[][] =>
  answered(table, {
    tallies: [{ kind: 'ledger', groups, measures: [SUM, RUNNING] }],
  }).tallies[0].tables[0].rows.map(({ cells }) => [
    cells.slice(0, groups.length).filter(Boolean).at(-1),
    ...cells.slice(groups.length + 1),
  ]);

describe('a running total under groups', () => {
  it('runs over the groups in the order shown', () => {
    expect(rows(SAILINGS, [{ column: 'route' }])).toEqual([
      ['Grand total', 113, 113],
      ['Holm', 3, 3],
      ['Ness', 10, 13],
      ['Skerry', 100, 113],
    ]);
    expect(
      rows(SAILINGS, [
        { column: 'route', order: { by: 'measure', measure: 0, descending: true } },
      ]).slice(1),
    ).toEqual([
      ['Skerry', 100, 100],
      ['Ness', 10, 110],
      ['Holm', 3, 113],
    ]);
  });

  it('ordered by itself, is ordered by what each group adds', () => {
    expect(
      rows(SAILINGS, [
        { column: 'route', order: { by: 'measure', measure: 1, descending: true } },
      ]).slice(1),
    ).toEqual([
      ['Skerry', 100, 100],
      ['Ness', 10, 110],
      ['Holm', 3, 113],
    ]);
  });

  it('runs on through the groups of a lower level', () => {
    expect(rows(SAILINGS, [{ column: 'route' }, { column: 'vessel' }]).slice(1)).toEqual([
      ['Holm', 3, 3],
      ['Fulmar', 1, 1],
      ['Rover', 2, 3],
      ['Ness', 10, 13],
      ['Auk', 10, 13],
      ['Tern', null, 13],
      ['Skerry', 100, 113],
      ['Auk', 100, 113],
    ]);
  });

  it('opens to the records of the groups up to it', () => {
    const { input, result } = answeredOn(SAILINGS, {
      tallies: [{ kind: 'ledger', groups: [{ column: 'route' }], measures: [RUNNING] }],
    });
    const found = behind(input, result.tallies[0], { table: 'main', row: ['Ness'], column: 'm1' });
    expect([...found.records]).toEqual([0, 1, 2, 3]);
    expect(found.figure).toBe(13);
  });

  it('ends with the whole sum, whatever the groups', () => {
    const row = fc.tuple(
      fc.constantFrom('Holm', 'Ness', 'Skerry'),
      fc.constantFrom('Auk', 'Tern'),
      fc.option(fc.integer({ min: -1000, max: 1000 })),
    );
    fc.assert(
      fc.property(fc.array(row, { minLength: 1, maxLength: 30 }), (made) => {
        const [[, , whole], ...groups] = rows(tableOf(made), [{ column: 'route' }]);
        expect(groups.at(-1)?.[2]).toBe(whole);
        groups.forEach(([, own, running], k) => {
          const before = k === 0 ? 0 : Number(groups[k - 1][2]);
          expect(running).toBe(before + Number(own));
        });
      }),
      { numRuns: 200 },
    );
  });
});

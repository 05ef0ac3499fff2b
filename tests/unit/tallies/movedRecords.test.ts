import { describe, expect, it } from 'vitest';
import { newBench } from '$lib/core/bench/newBench';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { Tally } from '$lib/core/tally/spec/specs';
import { NoSuchFigure } from '$lib/core/errors';
import { Replies } from '$lib/engine/replies';
import { OpenBench } from '../../support/bench';
import { noRecipe } from '../../support/smallList';

type Entry = readonly [key: number, group: string, amount: number | null, note: string | null];
const listOf = (entries: readonly Entry[]): Table => ({
  length: entries.length,
  columns: [
    scalarColumn(
      'Key',
      'number',
      entries.map(([key]) => key),
    ),
    textColumn(
      'Group',
      entries.map(([, group]) => group),
    ),
    scalarColumn(
      'Amount',
      'number',
      entries.map(([, , amount]) => amount),
      { decimals: 2 },
    ),
    textColumn(
      'Note',
      entries.map(([, , , note]) => note),
    ),
  ],
});
const before = listOf([
  [1, 'a', 10, null],
  [2, 'a', 20, null],
  [3, 'b', 5, null],
  [4, 'b', 7, null],
  [5, 'a', 1, null],
  [6, 'a', null, null],
]);
const after = listOf([
  [1, 'a', 12.5, null],
  [3, 'a', 5, null],
  [4, 'b', 7, null],
  [5, 'a', 1, 'seen'],
  [6, 'a', 3, null],
  [9, 'b', 100, null],
]);

/** The bench of the newer list with what moved by group, opened. */
function opened(measure: object): OpenBench {
  const doc = newBench(after, 2);
  const tally = Tally.parse({
    kind: 'comparison',
    with: 'before',
    match: ['Key'],
    unmoved: true,
    tally: { kind: 'ledger', groups: [{ column: 'Group' }], measures: [measure] },
  });
  const bench = new OpenBench(after, noRecipe, 'Entries', new Map([['before', before]]));
  bench.show({ ...doc, tray: [...doc.tray, { ...doc.tray[0], id: 'moved', tally }] });
  return bench;
}
const behindOf = (bench: OpenBench, group: string, figure: string, from = 0, count = 10) =>
  bench.ask('movedRecords', {
    place: { tally: 'moved', table: 'main', row: [group, figure], column: 'after' },
    from,
    count,
  });

describe('the records of both readings behind a figure that moved', () => {
  it('stand side by side, those that moved it most first, and come to the difference', () => {
    const { total, columns, records } = behindOf(
      opened({ kind: 'sum', column: 'Amount' }),
      'a',
      'sum of Amount',
    );
    expect(columns.map(({ name }) => name)).toEqual([
      'Moved by',
      'Amount, before',
      'now',
      'Key',
      'What changed',
    ]);
    expect(total).toBe(5);
    expect(records).toEqual([
      { how: 'went', number: 2, record: null, cells: ['−20.00', '20.00', 'not there', '2', ''] },
      {
        how: 'changed',
        number: 2,
        record: 1,
        cells: ['+5.00', 'not in it', '5.00', '3', 'Group: b → a'],
      },
      { how: 'changed', number: 5, record: 4, cells: ['+3.00', 'blank', '3.00', '6', ''] },
      { how: 'changed', number: 1, record: 0, cells: ['+2.50', '10.00', '12.50', '1', ''] },
      {
        how: 'changed',
        number: 4,
        record: 3,
        cells: ['0.00', '1.00', '1.00', '5', 'Note: blank → seen'],
      },
    ]);
  });

  it('are given stretch by stretch', () => {
    const bench = opened({ kind: 'sum', column: 'Amount' });
    const { total, records } = behindOf(bench, 'a', 'sum of Amount', 1, 2);
    expect([total, records.map(({ number }) => number)]).toEqual([5, [2, 5]]);
  });

  it('of a mean, by how far their values moved; nothing is added up', () => {
    const { columns, records } = behindOf(
      opened({ kind: 'mean', column: 'Amount' }),
      'b',
      'mean of Amount',
    );
    expect(columns.map(({ name }) => name)).not.toContain('Moved by');
    expect(records.map(({ how, cells }) => [how, ...cells])).toEqual([
      ['came', 'not there', '100.00', '9', ''],
      ['changed', '5.00', 'not in it', '3', 'Group: b → a'],
    ]);
  });

  it('with the places of both readings, where the newer has fewer', () => {
    const shorter = listOf([[1, 'a', 12.5, null]]);
    const column = shorter.columns[2];
    if (!('values' in column)) throw new Error('no numbers');
    const newer = { ...shorter, columns: shorter.columns.with(2, { ...column, decimals: 1 }) };
    const older = listOf([[1, 'a', 10.25, null]]);
    const tally = Tally.parse({
      kind: 'comparison',
      with: 'before',
      match: ['Key'],
      tally: { kind: 'ledger', groups: [], measures: [{ kind: 'sum', column: 'Amount' }] },
    });
    const doc = newBench(newer, 2);
    const bench = new OpenBench(newer, noRecipe, 'Entries', new Map([['before', older]]));
    bench.show({ ...doc, tray: [...doc.tray, { ...doc.tray[0], id: 'moved', tally }] });
    const [record] = behindOf(bench, 'All', 'sum of Amount').records;
    expect(record.cells.slice(0, 3)).toEqual(['+2.25', '10.25', '12.50']);
  });

  it('of a count, one by one', () => {
    const { columns, records } = behindOf(opened({ kind: 'records' }), 'b', 'count of records');
    expect(columns.map(({ name }) => name)).toEqual(['Moved by', 'Key', 'What changed']);
    expect(records.map(({ cells }) => cells)).toEqual([
      ['+1', '9', ''],
      ['−1', '3', 'Group: b → a'],
    ]);
  });

  it('of two readings of which neither is the list, as they were of the newer one', () => {
    const own = opened({ kind: 'sum', column: 'Amount' });
    const later = listOf([
      [1, 'a', 1, null],
      [7, 'c', 70, null],
    ]);
    const doc = newBench(later, 3);
    const bench = new OpenBench(
      later,
      noRecipe,
      'Entries',
      new Map([
        ['before', before],
        ['after', after],
      ]),
    );
    const tally = Tally.parse({
      kind: 'comparison',
      with: 'before',
      to: 'after',
      match: ['Key'],
      unmoved: true,
      tally: {
        kind: 'ledger',
        groups: [{ column: 'Group' }],
        measures: [{ kind: 'sum', column: 'Amount' }],
      },
    });
    const setAside = { ...doc.ladder.setAside, records: [1] };
    const show = (ladder: typeof doc.ladder) =>
      bench.show({ ...doc, ladder, tray: [...doc.tray, { ...doc.tray[0], id: 'moved', tally }] });
    show(doc.ladder);
    const { total, records } = behindOf(bench, 'a', 'sum of Amount');
    const there = behindOf(own, 'a', 'sum of Amount');
    expect(records.map(({ number, how, cells }) => [number, how, ...cells])).toEqual(
      there.records.map(({ number, how, cells }) => [number, how, ...cells]),
    );
    // Their records are none of the list: no panel of a record opens, and none are counted as its own.
    expect([total, new Set(records.map(({ record }) => record))]).toEqual([5, new Set([null])]);
    const place = { tally: 'moved', table: 'main', row: ['a', 'sum of Amount'], column: 'after' };
    expect(bench.ask('behind', { place })).toMatchObject({ records: 0, moved: true });
    // Record 1 of the list is set aside: its like is in both readings.
    show({ ...doc.ladder, setAside });
    expect(behindOf(bench, 'a', 'sum of Amount').records.map(({ cells }) => cells[0])).toEqual(
      there.records.flatMap(({ number, how, cells }) =>
        how === 'changed' && number === 1 ? [] : [cells[0]],
      ),
    );
    const every = Replies.moved.parse(bench.ask('moved', { with: 'before', to: 'after' }));
    const last = Replies.moved.parse(bench.ask('moved', { with: 'before' }));
    const sums = ({ tallies: [{ moved }] }: typeof every) =>
      moved
        .filter(({ title }) => title === 'sum of Amount')
        .map((figure) => [figure.before, figure.after]);
    expect(sums(every)).toEqual([['43.00', '128.50']]);
    expect(sums(last)).toEqual([['43.00', '70.00']]);
  });

  it('are not of a tally that compares no readings', () => {
    const bench = new OpenBench(after, noRecipe, 'Entries');
    const doc = newBench(after, 2);
    bench.show(doc);
    expect(() =>
      bench.ask('movedRecords', {
        place: { tally: doc.tray[0].id, table: 0, row: [], column: 'm1' },
        from: 0,
        count: 1,
      }),
    ).toThrow(NoSuchFigure);
  });
});

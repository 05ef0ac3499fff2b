import { describe, expect, it } from 'vitest';
import { setSetAside } from '$lib/core/bench/edits';
import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { addTally } from '$lib/core/bench/trayEdits';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { Tally } from '$lib/core/tally/spec/specs';
import { Replies } from '$lib/engine/replies';
import { OpenBench } from '../support/bench';
import { noRecipe } from '../support/smallList';

const reading = (routes: string[], fares: (number | null)[]): Table => ({
  length: routes.length,
  columns: [textColumn('Route', routes), scalarColumn('Fares', 'number', fares, { unit: '£' })],
});
const older = reading(['Holm', 'Holm', 'Ness', 'Outer'], [10, 20, 5, 7]);
const newer = reading(['Outer', 'Holm', 'Ness', 'Skerry', 'Holm'], [9, 10, 5, 4, 20]);

const sums = {
  kind: 'ledger',
  groups: [{ column: 'Route' }],
  measures: [{ kind: 'sum', column: 'Fares' }],
};
const ranking = {
  kind: 'ranking',
  groups: [{ column: 'Route' }],
  by: { kind: 'sum', column: 'Fares' },
};

function movedOf(
  tallies: readonly unknown[],
  change: (doc: Bench) => Bench = (doc) => doc,
  before: Table = older,
) {
  const start: Bench = {
    ...newBench(newer, 2),
    lists: { older: { reading: 1, table: 'main' } },
  };
  const doc = change(tallies.reduce<Bench>((to, spec) => addTally(to, Tally.parse(spec)), start));
  const bench = new OpenBench(newer, noRecipe, 'Sailings', new Map([['older', before]]));
  bench.show(doc);
  const moved = Replies.moved.parse(bench.ask('moved', { with: 'older' }));
  // The bench's own ledger comes first.
  return { ...moved, tallies: moved.tallies.slice(1) };
}

describe('every tally against an older reading', () => {
  it('rows meet by what they are of, wherever they stand; the largest relative change first', () => {
    const [ledger] = movedOf([sums]).tallies;
    // Outer went from 7 to 9, the whole from 42 to 48; Holm and Ness are as they were.
    expect(
      ledger.moved.map(({ where, title, before, after, change }) => [
        where,
        title,
        before,
        after,
        change,
      ]),
    ).toEqual([
      ['Outer', 'sum of Fares (£)', '7', '9', '+2'],
      ['Grand total', 'Records', '4', '5', '+1'],
      ['Grand total', 'sum of Fares (£)', '42', '48', '+6'],
    ]);
    expect(ledger.moved[0].share).toBeCloseTo(2 / 7, 12);
    expect([ledger.came, ledger.went]).toEqual([['Skerry'], []]);
    // Records and sum of Holm, Ness, Outer and the whole.
    expect([ledger.compared, ledger.count]).toEqual([8, 3]);
  });

  it('a place in a ranking is a figure of its row, not its name', () => {
    // Ness was first with 50, and is third with 5.
    const other = reading(['Holm', 'Ness', 'Outer'], [30, 50, 7]);
    const [ranked] = movedOf([ranking], undefined, other).tallies;
    expect(ranked.went).toEqual([]);
    expect(ranked.came).toEqual(['Skerry']);
    const ness = ranked.moved.filter((m) => m.where === 'Ness');
    expect(ness.map(({ before, after }) => [before, after])).toContainEqual(['50', '5']);
    expect(ness.find((m) => m.title === 'Place')).toMatchObject({ before: '1', after: '3' });
  });

  it('records named by number are the same ones in both; nothing moved is said', () => {
    const aside = (doc: Bench): Bench =>
      setSetAside(doc, { ...doc.ladder.setAside, records: [1, 4] });
    const moved = movedOf([sums], aside);
    // Outer of the newer one is record 1, and is not found in the older: its fares are others.
    expect(moved.lost).toBe(2);
    const whole = moved.tallies[0].moved.filter((m) => m.where === 'Grand total');
    expect(whole.map((m) => [m.before, m.after])).toEqual([
      ['4', '3'],
      ['42', '35'],
    ]);
    const same = movedOf([{ ...sums, measures: [{ kind: 'max', column: 'Fares' }] }], (doc) => ({
      ...doc,
      ladder: {
        ...doc.ladder,
        rungs: [
          {
            id: 'r',
            on: true,
            condition: {
              kind: 'leaf',
              column: 'Route',
              not: false,
              test: { test: 'is', values: ['Holm', 'Ness'], exact: false },
            },
          },
        ],
      },
    }));
    expect(same.tallies[0]).toMatchObject({ count: 0, came: [], went: [] });
  });

  it('a tally that could not be answered before says so', () => {
    const bare: Table = { length: 4, columns: older.columns.slice(0, 1) };
    const [gone] = movedOf([ranking], undefined, bare).tallies;
    expect(gone).toMatchObject({ why: 'It had no figures before.', moved: [] });
  });

  it('the same records in another order have not moved, whatever follows from their sums', () => {
    const n = 500;
    const list = (turn: (k: number) => number): Table => {
      const at = Array.from({ length: n }, (_, k) => turn(k));
      return {
        length: n,
        columns: [
          textColumn(
            'Route',
            at.map((k) => `R${k % 7}`),
          ),
          scalarColumn(
            'Fares',
            'number',
            at.map((k) => Math.sin(k) * 1e6 + 0.1),
          ),
          scalarColumn(
            'Day',
            'date',
            at.map((k) => 20_000 + (k % 90)),
          ),
        ],
      };
    };
    const before = list((k) => k);
    const after = list((k) => (k * 193) % n);
    const measures = ['sum', 'mean', 'sd', 'skewness', 'median'].map((kind) => ({
      kind,
      column: 'Fares',
    }));
    const tallies = [
      { kind: 'ledger', groups: [{ column: 'Route' }], measures },
      {
        kind: 'periods',
        column: 'Day',
        levels: ['month'],
        measures: measures.slice(0, 2),
        against: ['previous'],
        running: true,
      },
      { kind: 'ranking', groups: [{ column: 'Route' }], by: { kind: 'sum', column: 'Fares' } },
    ];
    const doc = { ...newBench(after, 2), lists: { older: { reading: 1, table: 'main' } } };
    const bench = new OpenBench(after, noRecipe, 'Sailings', new Map([['older', before]]));
    bench.show(tallies.reduce<Bench>((to, spec) => addTally(to, Tally.parse(spec)), doc));
    const moved = Replies.moved.parse(bench.ask('moved', { with: 'older' }));
    expect(moved.tallies.map(({ count, compared }) => [count, compared > 5])).toEqual(
      moved.tallies.map(({ words }) => [0, !words.includes('not grouped')]),
    );
    // One fare of a penny more is seen all the same, in sum and mean.
    const [, , day] = after.columns;
    const fares = after.columns[1];
    const values = Float64Array.from('values' in fares ? fares.values : []);
    values[3] += 0.01;
    const penny: Table = {
      length: n,
      columns: [after.columns[0], { ...scalarColumn('Fares', 'number', []), values }, day],
    };
    const next = new OpenBench(penny, noRecipe, 'Sailings', new Map([['older', before]]));
    next.show(addTally(doc, Tally.parse(tallies[0])));
    const [, ledger] = Replies.moved.parse(next.ask('moved', { with: 'older' })).tallies;
    expect(new Set(ledger.moved.map(({ title }) => title.split(' ')[0]))).toContain('mean');
    expect(ledger.moved.filter(({ title }) => title === 'sum of Fares')).toHaveLength(2);
  });

  it('the column of the blanks is another than that of the text “blank”', () => {
    const list = (fares: number[]): Table => ({
      length: 3,
      columns: [
        textColumn('Route', ['Holm', 'Holm', 'Holm']),
        textColumn('Cause', ['blank', null, 'fog']),
        scalarColumn('Fares', 'number', fares),
      ],
    });
    const spec = {
      kind: 'crosstab',
      down: [{ column: 'Route' }],
      across: [{ column: 'Cause' }],
      measures: [{ kind: 'sum', column: 'Fares' }],
      count: false,
    };
    const [now, then] = [list([1, 5, 3]), list([1, 2, 3])];
    const doc = { ...newBench(now, 2), lists: { older: { reading: 1, table: 'main' } } };
    const bench = new OpenBench(now, noRecipe, 'Sailings', new Map([['older', then]]));
    bench.show(addTally(doc, Tally.parse(spec)));
    const [, cross] = Replies.moved.parse(bench.ask('moved', { with: 'older' })).tallies;
    expect(
      cross.moved
        .filter(({ title }) => title.startsWith('blank'))
        .map(({ before, after }) => [before, after]),
    ).toContainEqual(['2', '5']);
  });
});

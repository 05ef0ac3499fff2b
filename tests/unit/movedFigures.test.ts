import { describe, expect, it } from 'vitest';
import { setSetAside } from '$lib/core/bench/edits';
import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { addTally } from '$lib/core/bench/trayEdits';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { Tally } from '$lib/core/tally/specs';
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
});

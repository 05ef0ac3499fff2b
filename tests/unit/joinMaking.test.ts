import { finish } from '$lib/core/task/task';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { setMeasures } from '$lib/core/bench/edits';
import { removeMade, setJoin } from '$lib/core/bench/madeEdits';
import { newBench } from '$lib/core/bench/newBench';
import { joinColumns } from '$lib/core/prepare/join';
import { keyGuesses } from '$lib/core/prepare/keyGuess';
import { JoinDraft, type JoinSpec } from '$lib/core/prepare/specs';
import { scalarColumn, textColumn, type ScalarColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { Replies } from '$lib/engine/replies';
import type { ReplyOf } from '$lib/engine/protocol';
import { OpenBench } from '../support/bench';
import { noRecipe } from '../support/smallList';

const sailings: Table = {
  length: 6,
  columns: [
    textColumn('Ship', ['Gannet', 'tern ', null, 'Gannet', 'Skua', 'Skua']),
    textColumn('Route', ['Holm', 'Ness', 'Holm', 'Ness', 'Holm', 'Ness']),
    scalarColumn('Boarded', 'number', [1, 2, 3, 4, 5, 6]),
  ],
};
const vessels: Table = {
  length: 4,
  columns: [
    textColumn('Vessel', ['Gannet', 'Tern', 'Fulmar', 'Gannet']),
    scalarColumn('Passengers', 'number', [300, 450, 120, 310]),
    scalarColumn('Boarded', 'number', [1, 9, 9, 9]),
    textColumn('Route', ['Holm', 'Holm', 'Ness', 'Ness']),
  ],
};
const bring = (repeated?: 'first' | 'last' | 'mean') => [
  { column: 'Passengers', as: 'Seats', ...(repeated && { repeated }) },
];
const spec = (more: object): JoinSpec =>
  JoinDraft.parse({
    list: 'vessels',
    on: [{ column: 'Ship', with: 'Vessel' }],
    bring: [],
    ...more,
  });

function open(doc = newBench(sailings, 1)) {
  const bench = new OpenBench(sailings, noRecipe, 'Sailings', new Map([['vessels', vessels]]));
  bench.show({ ...doc, lists: { vessels: { list: 2, table: 'main' } } });
  const match = (join: JoinSpec, at: number | null = null): ReplyOf<'match'> =>
    Replies.match.parse(bench.ask('match', { spec: join, at }));
  return { bench, match };
}

describe('columns from another list, in the making', () => {
  it('its columns and the likeliest keys are proposed from names and values', () => {
    const other = Replies.other.parse(open().bench.ask('other', { list: 'vessels' }));
    expect(other.columns.map((c) => c.name)).toEqual(['Vessel', 'Passengers', 'Boarded', 'Route']);
    // Two of the three ships' names are there; routes are all there, under the same name.
    expect(other.keys.map((k) => [k.column, k.with])).toEqual([
      ['Route', 'Route'],
      ['Ship', 'Vessel'],
      ['Boarded', 'Boarded'],
    ]);
    expect(other.keys[1].found).toBeCloseTo(2 / 3);
  });

  it('a key that stands once and fits wins over one of the same name that does not', () => {
    const single: Table = {
      ...vessels,
      length: 3,
      columns: [
        textColumn('Vessel', ['Gannet', 'Tern', 'Skua']),
        textColumn('Route', ['far', 'off', 'Ness']),
      ],
    };
    const [best] = keyGuesses(sailings, single);
    expect([best.column, best.with, best.single]).toEqual(['Ship', 'Vessel', true]);
    expect(keyGuesses({ length: 0, columns: sailings.columns.slice(2) }, single)).toEqual([]);
  });

  it('says how the keys meet before anything is brought', () => {
    const { meets, shown, fault } = open().match(spec({}));
    expect(meets).toEqual({
      records: 6,
      matched: 3,
      blank: 1,
      missing: [{ key: 'Skua', records: 2 }],
      missingKeys: 1,
      never: ['Fulmar'],
      neverKeys: 1,
      repeated: [{ key: 'Gannet', records: 2 }],
      repeatedKeys: 1,
    });
    expect([shown?.rows.length, fault]).toEqual([5, null]);
    // Case and outer spaces as chosen.
    expect(open().match(spec({ loose: false })).meets?.matched).toBe(2);
  });

  it('a doubled key is refused until it is said what is taken', () => {
    const { match } = open();
    expect(match(spec({ bring: bring() })).fault?.message).toContain('stands more than once');
    expect(match(spec({ bring: bring('last') })).shown?.rows.map((r) => r.cells)).toEqual([
      ['Gannet', '310'],
      ['tern ', '450'],
      ['', ''],
      ['Gannet', '310'],
      ['Skua', ''],
    ]);
    expect(match(spec({ bring: bring('mean') })).shown?.rows[0].cells[1]).toBe('305.0');
  });

  it('brings what a look through all records would, whatever the keys', () => {
    const key = fc.constantFrom('a', 'b', 'B ', 'c', 'd', null);
    fc.assert(
      fc.property(
        fc.array(key, { minLength: 1, maxLength: 30 }),
        fc.array(key, { minLength: 1, maxLength: 30 }),
        fc.boolean(),
        (here, there, loose) => {
          const table: Table = { length: here.length, columns: [textColumn('k', here)] };
          const other: Table = {
            length: there.length,
            columns: [
              textColumn('k', there),
              scalarColumn(
                'v',
                'number',
                there.map((_, i) => i),
              ),
            ],
          };
          const join = JoinDraft.parse({
            list: 'o',
            on: [{ column: 'k' }],
            bring: [{ column: 'v', repeated: 'last' }],
            loose,
          });
          const [{ values }] = finish(joinColumns(table, other, join, (name) => name))
            .columns as ScalarColumn[];
          const form = (text: string | null): string | null =>
            text !== null && loose ? text.trim().toLowerCase() : text;
          here.forEach((text, i) => {
            const last = there.findLastIndex((t) => t !== null && form(t) === form(text));
            expect([i, values[i]]).toEqual([i, text === null || last < 0 ? NaN : last]);
          });
        },
      ),
    );
  });

  it('names taken, columns gone and several keys', () => {
    const { match } = open();
    const taken = match(spec({ bring: [{ column: 'Boarded', repeated: 'first' }] }));
    expect(taken.fault?.message).toContain('There is a column “Boarded” already');
    expect(taken.meets?.matched).toBe(3);
    expect(match(spec({ on: [{ column: 'Gone', with: 'Vessel' }] })).fault?.message).toContain(
      'There is no column “Gone”',
    );
    const two = spec({
      on: [{ column: 'Ship', with: 'Vessel' }, { column: 'Route' }],
      bring: bring(),
    });
    expect(match(two)).toMatchObject({ fault: null, meets: { matched: 2, repeatedKeys: 0 } });
  });

  it('kept, they are columns of the bench; changed, it is their own names that are free', () => {
    const doc = setJoin(newBench(sailings, 1), null, spec({ bring: bring('first') }), {
      list: 2,
      table: 'main',
    });
    expect(doc.lists).toEqual({ vessels: { list: 2, table: 'main' } });
    const { bench, match } = open(doc);
    const { columns, faults } = bench.show(doc);
    expect(faults).toEqual([]);
    expect(columns.at(-1)).toMatchObject({ id: 'Seats', name: 'Seats', type: 'number' });
    expect(match(spec({ bring: bring('last') }), 0).fault).toBeNull();
    expect(match(spec({ bring: bring('last') })).fault?.message).toContain('“Seats” already');
    expect(removeMade(doc, { of: 'joins', at: 0 }).joins).toEqual([]);
  });

  it('renamed, the rest finds them under the name they were brought with, and back', () => {
    const brought = setJoin(newBench(sailings, 1), null, spec({ bring: bring('first') }));
    const doc = setMeasures(brought, [{ kind: 'sum', column: 'Seats' }]);
    const other = spec({ bring: [{ ...bring('first')[0], as: 'Places' }] });
    const renamed = setJoin(doc, 0, other);
    const overview = open(renamed).bench.show(renamed);
    expect(overview.faults).toEqual([]);
    expect(overview.columns.at(-1)).toMatchObject({ id: 'Seats', name: 'Places' });
    expect(overview.heads.at(-1)?.name).toContain('Places');
    expect(setJoin(renamed, 0, doc.joins[0])).toEqual(doc);
  });
});

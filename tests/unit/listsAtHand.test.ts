import { describe, expect, it } from 'vitest';
import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { Tally } from '$lib/core/tally/spec/specs';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import { ListsAtHand } from '$lib/ui/bench/listsAtHand';

const table = {
  length: 2,
  columns: [
    textColumn('Route', ['Ness', 'Skerry'], 'route'),
    scalarColumn('Fares', 'number', [1, 2], { id: 'fares' }),
  ],
};
const start = newBench(table, 9);
const facts = {
  listId: 4,
  readings: [{ id: 8, name: 'the reading of 3 May' }],
  lists: [
    {
      id: 5,
      name: 'Kiosks',
      follows: false,
      bench: 9,
      reading: 50,
      readAt: '1 Jun',
      readSince: true,
      columns: [],
    },
    {
      id: 6,
      name: 'Made of this',
      follows: true,
      bench: null,
      reading: 60,
      readAt: '2 Jun',
      readSince: true,
      columns: [],
    },
  ],
};
const at = (doc: Bench): ListsAtHand => new ListsAtHand(facts, () => doc);
const naming = (lists: Bench['lists'], seen?: Bench['seen']): Bench => ({
  ...start,
  lists,
  ...(seen && { seen }),
});

describe('lists and readings that a bench can name', () => {
  it('come from the shelf: a reading stays the one it is, a list is its current one', () => {
    const lists = at(start);
    expect(lists.sourceOf('the reading of 3 May')).toEqual({ list: 4, reading: 8, table: 'main' });
    expect(lists.sourceOf('Kiosks')).toEqual({ list: 5, table: 'main' });
    expect(lists.sourceOf('Lost')).toBeNull();
  });

  it('leave out lists that are made of this one as sources, and readings among the lists', () => {
    const own = naming({ Piers: { list: 7, table: 'main' }, Kiosks: { list: 5, table: 'main' } });
    expect(at(own).names).toEqual(['Piers', 'Kiosks']);
    expect(at(own).comparable).toEqual(['Piers', 'Kiosks', 'the reading of 3 May']);
  });

  it('are taken in when a tally names them, and what the bench calls so already stays', () => {
    const compared = Tally.parse({
      kind: 'comparison',
      tally: { kind: 'ledger', groups: [{ column: 'route' }], measures: [] },
      with: 'the reading of 3 May',
    });
    const names = new Map([['route', 'Route']]);
    expect(at(start).withThoseOf(start, compared, names).lists).toEqual({
      'the reading of 3 May': { list: 4, reading: 8, table: 'main' },
    });
    const banded = Tally.parse({
      kind: 'frequency',
      key: { column: 'fares', bands: { by: 'list', list: 'Kiosks', from: 'a', to: 'b' } },
    });
    expect(Object.keys(at(start).withThoseOf(start, banded, names).lists)).toEqual(['Kiosks']);
    const own = naming({ Kiosks: { list: 99, table: 'main' } });
    expect(at(own).withThoseOf(own, banded, names)).toBe(own);
    expect(at(start).with(start, ['Lost']).lists).toEqual({});
  });

  it('are followed where the bench takes their current reading, whatever it calls them', () => {
    const own = naming({
      'our kiosks': { list: 5, table: 'main' },
      'kiosks of May': { list: 5, reading: 41, table: 'main' },
    });
    expect(at(own).followed('our kiosks')?.id).toBe(5);
    expect(at(own).followed('kiosks of May')).toBeNull();
    expect([...at(own).current(own)]).toEqual([['our kiosks', 50]]);
  });

  it('are read anew where the reading is another than the one last seen', () => {
    const lists = { Kiosks: { list: 5, table: 'main' } } as const;
    const anew = [{ name: 'Kiosks', readAt: '1 Jun' }];
    expect(at(naming(lists, { Kiosks: 50 })).readAnew).toEqual([]);
    expect(at(naming(lists, { Kiosks: 49 })).readAnew).toEqual(anew);
    // A bench that says nothing of what was seen goes by the day it was saved.
    expect(at(naming(lists)).readAnew).toEqual(anew);
  });
});

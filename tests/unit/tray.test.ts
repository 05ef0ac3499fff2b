import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { keepBands, dropBands } from '$lib/core/bench/bandEdits';
import type { Bench } from '$lib/core/bench/document';
import { Bench as BenchSchema } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { openItem } from '$lib/core/bench/tray';
import {
  addTally,
  duplicateTally,
  keepApart,
  lookAt,
  moveTally,
  openTally,
  removeTally,
  renameTally,
} from '$lib/core/bench/trayEdits';
import { Tally } from '$lib/core/tally/spec/specs';
import { small } from '../support/smallList';

const frequency = Tally.parse({ kind: 'frequency', key: { column: 'Region' } });
const ids = (doc: Bench): string[] => doc.tray.map((item) => item.id);
const start = newBench(small, 1);
const two = addTally(addTally(start, frequency), frequency, 'Twice');

describe('the tray', () => {
  it('takes a tally behind the open one, under a name of its own, and opens it', () => {
    expect(ids(two)).toEqual(['ledger', 'frequency-1', 'frequency-2']);
    expect(openItem(two)).toMatchObject({ id: 'frequency-2', name: 'Twice' });
    const between = addTally(openTally(two, 'ledger'), frequency);
    expect(ids(between)).toEqual(['ledger', 'frequency-3', 'frequency-1', 'frequency-2']);
  });

  it('duplicates beside the first, with its view', () => {
    const seen = lookAt(two, 'frequency-2', { showDown: 2, turned: ['["x"]'] });
    const doc = duplicateTally(seen, 'frequency-2');
    expect(openItem(doc)).toMatchObject({
      id: 'frequency-3',
      name: 'Twice, again',
      view: { showDown: 2, turned: ['["x"]'] },
    });
    expect(duplicateTally(two, 'gone')).toBe(two);
  });

  it('takes one out and opens its neighbour; the last stays', () => {
    const one = removeTally(two, 'frequency-2');
    expect([ids(one), one.open]).toEqual([['ledger', 'frequency-1'], 'frequency-1']);
    const first = removeTally(openTally(two, 'ledger'), 'ledger');
    expect(first.open).toBe('frequency-1');
    expect(removeTally(start, 'ledger')).toBe(start);
    expect(removeTally(openTally(two, 'ledger'), 'frequency-1').open).toBe('ledger');
  });

  it('moves before another or to the end, renames, keeps apart', () => {
    expect(ids(moveTally(two, 'frequency-2', 'ledger'))[0]).toBe('frequency-2');
    expect(ids(moveTally(two, 'ledger', null)).at(-1)).toBe('ledger');
    expect(moveTally(two, 'ledger', 'gone')).toBe(two);
    const named = renameTally(two, 'ledger', '  By region ');
    expect(named.tray[0].name).toBe('By region');
    expect('name' in renameTally(named, 'ledger', ' ').tray[0]).toBe(false);
    expect(keepApart(two, 'ledger', true).tray[0].apart).toBe(true);
    expect('apart' in keepApart(keepApart(two, 'ledger', true), 'ledger', false).tray[0]).toBe(
      false,
    );
  });

  it('is a document after any row of changes: ids are single, one is open', () => {
    const change = fc.oneof(
      fc.constant((doc: Bench) => addTally(doc, frequency)),
      fc.nat(5).map((k) => (doc: Bench) => duplicateTally(doc, ids(doc)[k] ?? '')),
      fc.nat(5).map((k) => (doc: Bench) => removeTally(doc, ids(doc)[k] ?? '')),
      fc.tuple(fc.nat(5), fc.nat(6)).map(
        ([k, n]) =>
          (doc: Bench) =>
            moveTally(doc, ids(doc)[k] ?? '', ids(doc)[n] ?? null),
      ),
      fc.nat(5).map((k) => (doc: Bench) => openTally(doc, ids(doc)[k] ?? '')),
    );
    fc.assert(
      fc.property(fc.array(change, { maxLength: 20 }), (changes) => {
        const doc = changes.reduce((now, edit) => edit(now), start);
        expect(BenchSchema.parse(doc)).toEqual(doc);
        expect(new Set(ids(doc)).size).toBe(doc.tray.length);
        expect(ids(doc)).toContain(doc.open);
      }),
    );
  });

  it('keeps bands by name; the same name takes the place of the old', () => {
    const once = keepBands(start, 'Late', [{ from: 0, to: 5 }]);
    const again = keepBands(once, 'Late', [{ from: 0, to: 9 }]);
    expect(again.bands).toEqual([{ name: 'Late', bands: [{ from: 0, to: 9 }] }]);
    expect(dropBands(again, 'Late').bands).toEqual([]);
  });
});

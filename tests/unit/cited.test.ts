import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { citedIn, citeMark, notePartsOf } from '$lib/core/check/cited';
import { citeFigure, readCited, setWords, wordsAt } from '$lib/core/bench/citedEdits';
import { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { newView } from '$lib/core/bench/trayEdits';
import { upgradeBench } from '$lib/core/bench/upgrade';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import { Tally } from '$lib/core/tally/spec/specs';
import { openEngine } from '$lib/engine/openEngine';
import { noRecipe } from '../support/smallList';

describe('words with figures in them', () => {
  it('come apart and together again, whatever the words', () => {
    const part = fc.oneof(fc.string(), fc.constantFrom('{{c1}}', '{{c12}}', '{{c0}}', '{{', '}}'));
    fc.assert(
      fc.property(fc.array(part), (parts) => {
        const words = parts.join('');
        const again = notePartsOf(words)
          .map((p) => (typeof p === 'string' ? p : citeMark(p.cited)))
          .join('');
        expect(again).toBe(words);
      }),
    );
    expect(notePartsOf('Up to {{c1}} £, not {{x}}.')).toEqual([
      'Up to ',
      { cited: 'c1' },
      ' £, not {{x}}.',
    ]);
    expect(citedIn('{{c2}}{{c1}} {{c2}}')).toEqual(['c2', 'c1', 'c2']);
  });
});

const table = {
  length: 4,
  columns: [
    textColumn('Route', ['Holm', 'Ness', 'Skerry', 'Holm']),
    scalarColumn('Fares', 'number', [1000, 20, 30, 5]),
  ],
};
const tally = Tally.parse({
  kind: 'crosstab',
  down: [{ column: 'Route' }],
  across: [{ column: 'Route' }],
  measures: [{ kind: 'sum', column: 'Fares' }],
});
const bench: Bench = {
  ...newBench(table, 1),
  tray: [{ id: 't1', tally, view: newView(tally), note: 'Holm took' }],
  open: 't1',
};
const HOLM = {
  tally: 't1',
  place: { table: 'main', row: ['Holm'], column: 'all.m1' },
  read: '1,005',
};
const engine = openEngine({ name: 'Made', table, recipe: noRecipe, others: new Map() });
const cited = (doc: Bench) => {
  const { token } = engine.now('resolve', { doc });
  return engine.now('cited', { token });
};
const NOTE = { at: 'note', tally: 't1' } as const;

describe('a figure in the words of a report', () => {
  const doc = citeFigure(bench, HOLM, NOTE);

  it('stands at their end, and follows until the words were read again', () => {
    expect(wordsAt(doc, NOTE)).toBe('Holm took {{c1}}');
    expect(cited(doc)).toMatchObject([
      { id: 'c1', figure: '1,005', stands: 'same', where: 'Holm' },
    ]);
    const without = {
      ...doc,
      ladder: { ...doc.ladder, setAside: { records: [1], values: [], kept: [] } },
    };
    expect(cited(without)).toMatchObject([{ figure: '5', read: '1,005', stands: 'moved' }]);
    const read = readCited(without, new Map([['c1', '5']]));
    expect(cited(read)).toMatchObject([{ figure: '5', stands: 'same' }]);
  });

  it('keeps what was read last where it is gone, and says why', () => {
    const elsewhere = citeFigure(bench, { ...HOLM, place: { ...HOLM.place, row: ['Lyra'] } }, NOTE);
    expect(cited(elsewhere)).toMatchObject([
      { figure: '1,005', stands: 'lost', why: expect.stringMatching(/no longer there/) },
    ]);
    const other = citeFigure(bench, { ...HOLM, tally: 'gone' }, { at: 'intro' });
    expect(cited(other)).toMatchObject([{ stands: 'lost', why: expect.stringMatching(/tray/) }]);
  });

  it('is forgotten with its mark; others keep theirs', () => {
    const two = citeFigure(citeFigure(doc, HOLM, { at: 'intro' }), HOLM, NOTE);
    expect(two.cited.map(({ id }) => id)).toEqual(['c1', 'c2', 'c3']);
    expect(two.report.intro).toBe('{{c2}}');
    const fewer = setWords(two, NOTE, 'Only {{c3}}');
    expect(fewer.cited.map(({ id }) => id)).toEqual(['c2', 'c3']);
    expect(citeFigure(fewer, HOLM, NOTE).tray[0].note).toBe('Only {{c3}} {{c1}}');
  });

  it('is in no bench of before, which opens all the same', () => {
    const { cited: _, ...before } = doc;
    expect(upgradeBench(before).cited).toEqual([]);
    expect(Bench.safeParse({ ...doc, cited: [{ ...doc.cited[0], id: 'x' }] }).success).toBe(false);
  });
});

import { describe, expect, it } from 'vitest';
import * as edits from '$lib/core/bench/edits';
import { Bench } from '$lib/core/bench/document';
import { moveBench } from '$lib/core/bench/move';
import { newBench } from '$lib/core/bench/newBench';
import { ledgerSentence } from '$lib/core/tally/kinds/ledger/sentence';
import { plainSentence } from '$lib/core/tally/sentence/sentence';
import { layoutColumns } from '$lib/engine/ledger/slots';
import { carryRecords } from '$lib/core/read/carry';
import { decide, differenceKey, matchRecipe } from '$lib/core/read/refresh';
import { isText, scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { finish } from '$lib/core/task/task';
import { History } from '$lib/ui/bench/history';
import { OpenBench, spec } from '../support/bench';
import { readText } from '../support/demo';

const { recipe, reading } = readText(
  'route,boarded,fares (£)\nHolm,10,1.50\nNess,20,2.50\nSkerry,30,3.50\n',
);
const { table } = reading;
const fresh = (): Bench => newBench(table, 1);
const leaf = {
  kind: 'leaf' as const,
  column: 'boarded',
  not: false,
  test: { test: 'compare' as const, op: 'ge' as const, value: 15 },
};

describe('changes of a bench', () => {
  it('give a valid document and leave the old one as it was', () => {
    const before = fresh();
    const text = JSON.stringify(before);
    let doc = before;
    doc = edits.addRung(doc, leaf);
    doc = edits.addRung(doc, { ...leaf, not: true });
    expect(doc.ladder.rungs.map((r) => r.id)).toEqual(['r1', 'r2']);
    doc = edits.moveRung(doc, 'r2', -1);
    expect(doc.ladder.rungs.map((r) => r.id)).toEqual(['r2', 'r1']);
    expect(edits.moveRung(doc, 'r2', -1)).toBe(doc);
    doc = edits.negateRung(edits.switchRung(doc, 'r1'), 'r1');
    expect(doc.ladder.rungs[1]).toMatchObject({ on: false, condition: { not: true } });
    doc = edits.keepScope(doc, 'both');
    doc = edits.removeRung(edits.removeRung(doc, 'r1'), 'r2');
    expect(edits.bringScope(doc, 'both').ladder.rungs).toHaveLength(2);
    doc = edits.setAsideValue(edits.setAsideRecords(doc, [3, 1]), 'route', 'Ness');
    doc = edits.putBack(doc, [1]);
    expect(doc.ladder.setAside).toMatchObject({ records: [3], kept: [1] });
    doc = edits.setFormat(doc, 'boarded', {
      thousands: true,
      style: 'plain',
      currency: '£',
      scale: 'one',
      negative: 'minus',
      decimals: 1,
    });
    doc = edits.correctCells(doc, [{ record: 1, column: 'boarded', text: '11', was: '10' }]);
    doc = edits.correctCells(doc, [{ record: 1, column: 'boarded', text: '12', was: '10' }]);
    expect(doc.corrections).toHaveLength(1);
    expect(Bench.safeParse(doc).success).toBe(true);
    expect(JSON.stringify(before)).toBe(text);
  });

  it('keep an order by measure on its measure when measures move', () => {
    let doc = edits.setMeasures(fresh(), [
      { kind: 'sum', column: 'boarded' },
      { kind: 'mean', column: 'boarded' },
    ]);
    doc = edits.setGroups(doc, [
      { column: 'route', loose: false, order: { by: 'measure', measure: 1, descending: true } },
    ]);
    const [, mean] = spec(doc).measures;
    expect(spec(edits.setMeasures(doc, [mean])).groups[0].order).toMatchObject({
      by: 'measure',
      measure: 0,
    });
    expect(spec(edits.setMeasures(doc, [])).groups[0].order).toMatchObject({
      by: 'label',
    });
  });

  it('move, hide and fix columns without touching a figure', () => {
    let doc = fresh();
    const order = table.columns.map((c) => c.id);
    doc = edits.moveColumn(doc, order, 'fares', 'route');
    const { view } = doc.tray[0];
    expect(view.columns.map((c) => c.column)).toEqual(['fares', 'route', 'boarded']);
    expect(finish(layoutColumns(table, spec(doc), view)).slots.map((s) => s.column)).toEqual([
      'fares',
      'boarded',
    ]);
    doc = edits.changeColumn(doc, ['fares', 'route', 'boarded'], 'boarded', { hidden: true });
    const hidden = finish(layoutColumns(table, spec(doc), doc.tray[0].view));
    expect(hidden.slots.map((s) => s.column)).toEqual(['fares']);
    // Its sum is computed all the same: hiding changes what is seen, not what is counted.
    const engine = new OpenBench(table, recipe, 'T');
    expect(engine.show(doc).foot[2].records).toBe(3);
    expect(spec(doc).measures).toHaveLength(2);
  });
  it('a column that only the groups repeat leaves its measures in view', () => {
    let doc = edits.setGroups(fresh(), [
      { column: 'route', loose: false, order: { by: 'label', descending: false } },
    ]);
    doc = edits.setMeasures(doc, [{ kind: 'distinct', column: 'route' }]);
    const { view } = doc.tray[0];
    expect(
      finish(layoutColumns(table, spec(doc), view)).slots.find((s) => s.column === 'route'),
    ).toMatchObject({
      cells: false,
      measure: 0,
    });
  });

  it('give the column of groups the room of its labels, until its width is set', () => {
    const grouped = edits.setGroups(fresh(), [
      { column: 'route', loose: false, order: { by: 'label', descending: false } },
    ]);
    const widthOf = (of: Table): number => new OpenBench(of, recipe, 'T').show(grouped).groupWidth;
    const named = (name: string): Table => ({
      ...table,
      columns: table.columns.map((c) =>
        c.id === 'route' && isText(c) ? { ...c, dictionary: c.dictionary.map(() => name) } : c,
      ),
    });
    expect(widthOf(named('A'))).toBeGreaterThanOrEqual(160);
    expect(widthOf(named('Holm and the Inner Isles'))).toBeGreaterThan(widthOf(named('Holm')));
    expect(widthOf(named('x'.repeat(500)))).toBe(320);
    const engine = new OpenBench(table, recipe, 'T');
    const set = edits.setGroupWidth(grouped, 444);
    expect(engine.show(set).groupWidth).toBe(444);
  });

  it('undo and redo whole steps', () => {
    const history = new History();
    const [a, b, c] = [fresh(), edits.addRung(fresh(), leaf), edits.setLead(fresh(), null)];
    history.record('one', a, b);
    history.record('two', b, c);
    expect(history.undo()).toEqual({ label: 'two', doc: b });
    expect(history.undo()).toEqual({ label: 'one', doc: a });
    expect(history.undo()).toBeNull();
    expect(history.redo()).toEqual({ label: 'one', doc: b });
    history.record('three', b, a);
    expect(history.canRedo).toBeNull();
  });
});

describe('a new bench', () => {
  it('sums what can be added, and not years or shares', () => {
    const years = {
      length: 2,
      columns: [
        scalarColumn('built', 'number', [1998, 2011]),
        scalarColumn('cars', 'number', [40, 60]),
        scalarColumn('share', 'number', [0.5, 0.2], { percent: true }),
        textColumn('name', ['a', 'b']),
      ],
    };
    const doc = newBench(years, 1);
    expect(spec(doc).measures).toEqual([{ kind: 'sum', column: 'cars' }]);
    expect(doc.formats.built).toMatchObject({ thousands: false });
  });

  it('is described in a sentence', () => {
    const names = new Map(table.columns.map((c) => [c.id, c.name]));
    const first = spec(fresh());
    const words = (of: typeof first): string =>
      plainSentence(ledgerSentence(of, names, 'Sailings'));
    expect(words(first)).toBe(
      'Sailings not grouped, in the order read. At the foot: sum of boarded and sum of fares.',
    );
    const grouped = {
      ...first,
      groups: [
        { column: 'route', loose: false, order: { by: 'count' as const, descending: true } },
      ],
      sort: [{ column: 'fares', descending: true, blanks: 'last' as const }],
      measures: [],
    };
    expect(words(grouped)).toBe(
      'Sailings grouped by route (most records first), in order of fares, highest first.',
    );
  });
});

describe('another reading', () => {
  it('finds records again by what they hold', () => {
    const later = readText(
      'boarded,fares (£),route\n5,9,Outer\n30,3.50,Skerry\n10,1.50,Holm\n21,2.50,Ness\n',
    ).reading.table;
    const matched = { ...later, columns: later.columns.map((c) => ({ ...c })) };
    expect([...finish(carryRecords(table, matched, [1, 2, 3]))]).toEqual(
      expect.arrayContaining([
        [1, 3],
        [3, 2],
      ]),
    );
    expect(finish(carryRecords(table, matched, [2])).size).toBe(0);
    const doc = edits.correctCells(edits.setAsideRecords(fresh(), [1, 2]), [
      {
        record: 3,
        column: 'boarded',
        text: '31',
        was: '30',
      },
    ]);
    const moved = finish(moveBench(doc, table, matched, 2));
    expect(moved).toMatchObject({
      lost: 1,
      doc: { reading: 2, ladder: { setAside: { records: [3] } }, corrections: [{ record: 2 }] },
    });
  });

  it('takes doubled records one for one', () => {
    const twice = readText('a\nx\nx\ny\n').reading.table;
    expect([...finish(carryRecords(twice, twice, [1, 2])).values()].sort()).toEqual([1, 2]);
  });

  it('leaves every difference of columns to a decision', () => {
    const file = readText('fares (£),crew,route\nmany,5,Holm\nfew,6,Ness\n').recipe;
    const { recipe: matched, differences } = matchRecipe(file, recipe);
    expect(differences.map(differenceKey)).toEqual(['missing/boarded', 'type/fares', 'new/crew']);
    expect(matched.columns.map((c) => c.at)).toEqual([2, null, 0]);
    const follow = new Map(differences.map((d) => [differenceKey(d), false]));
    expect(decide(matched, differences, follow).columns.map((c) => [c.id, c.type])).toEqual([
      ['route', 'text'],
      ['fares', 'text'],
      ['crew', 'number'],
    ]);
    const keep = new Map(differences.map((d) => [differenceKey(d), true]));
    expect(decide(matched, differences, keep).columns.map((c) => [c.id, c.type])).toEqual([
      ['route', 'text'],
      ['boarded', 'number'],
      ['fares', 'number'],
    ]);
  });
});

import { describe, expect, it } from 'vitest';
import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { Tally } from '$lib/core/tally/spec/specs';
import { OpenBench, spec } from '../../support/bench';
import { noRecipe, small } from '../../support/smallList';

const withTally = (doc: Bench, tally: object, id = 'other'): Bench => ({
  ...doc,
  tray: [...doc.tray, { ...doc.tray[0], id, tally: Tally.parse(tally) }],
});
const open = (table: Table = small, others: ReadonlyMap<string, Table> = new Map()): OpenBench =>
  new OpenBench(table, noRecipe, 'Sailings', others);

/** All rows, in the table's own order. */
const WHOLE = { down: 99, turned: [] };

describe('the engine answers tallies over what a bench counts', () => {
  const crosstab = {
    kind: 'crosstab',
    down: [{ column: 'Region' }],
    across: [{ column: 'Depot' }],
    measures: [{ kind: 'sum', column: 'Sum' }],
  };

  it('with the ladder of the bench, and opens their figures by the keys of their rows', () => {
    const engine = open();
    const doc = withTally(newBench(small, 1), crosstab);
    doc.ladder.rungs = [
      { id: 'a', on: true, condition: { kind: 'expression', not: false, expression: 'Sum >= 5' } },
    ];
    doc.ladder.setAside.records = [3];
    engine.show(doc);
    const answer = engine.ask('answer', { tally: 'other' });
    expect(answer.tables[0]).toMatchObject({ name: 'main', length: 3, labels: 1 });
    expect(engine.ask('footing', { tally: 'other' })).toMatchObject({ foots: true, failure: null });
    const { rows } = engine.ask('rows', {
      tally: 'other',
      table: 'main',
      across: 0,
      from: 0,
      count: 1,
      view: WHOLE,
    });
    expect(rows[0]).toMatchObject({ keys: ['North'], kind: 'group' });
    const place = { tally: 'other', table: 'main', row: ['North'], column: 'all.m1' };
    expect(engine.ask('behind', { place })).toMatchObject({
      figure: '15',
      unit: '£',
      records: 2,
      values: 2,
      where: 'North',
      arithmetic: '2 values added up.',
      canCheck: true,
    });
    const records = engine.ask('behindRecords', { place, from: 0, count: 10 });
    expect(records.map((r) => r.record)).toEqual([0, 1]);
  });

  it('shows what does not fit in its place, and counts on without it', () => {
    const engine = open();
    const doc = withTally(newBench(small, 1), { kind: 'percentile', column: 'Depot' });
    doc.ladder.rungs = [
      { id: 'a', on: true, condition: { kind: 'expression', not: false, expression: 'Gone > 5' } },
    ];
    const shown = engine.show(doc);
    expect(shown.counted.records).toBe(6);
    expect(shown.rungs[0]).toMatchObject({ on: false, words: 'Gone > 5' });
    expect(shown.rungs[0].fault).toContain('Gone');
    const answer = engine.ask('answer', { tally: 'other' });
    expect(answer.tables).toEqual([]);
    expect(answer.faults[0]).toMatchObject({ path: 'tally.column' });
    expect(answer.faults[0].message).toMatch(/“Depot” is text/);
  });

  it('a column that changed its type leaves its step and its measures in place, at fault', () => {
    const engine = open();
    const doc = newBench(small, 1);
    doc.ladder.rungs = [
      {
        id: 'a',
        on: true,
        condition: {
          kind: 'leaf',
          column: 'Depot',
          not: false,
          test: { test: 'compare', op: 'ge', value: 3 },
        },
      },
    ];
    spec(doc).groups = [
      { column: 'Region', loose: false, order: { by: 'measure', measure: 1, descending: true } },
      { column: 'Depot', period: 'month', loose: false, order: { by: 'label', descending: false } },
    ];
    spec(doc).sort = [{ column: 'Gone', descending: true, blanks: 'last' }];
    spec(doc).measures = [
      { kind: 'mean', column: 'Depot' },
      { kind: 'sum', column: 'Sum' },
    ];
    doc.corrections = [{ record: 1, column: 'Gone', text: '1', was: '2' }];
    doc.ladder.setAside.values = [{ column: 'Gone', value: 'x' }];
    const shown = engine.show(doc);
    expect(shown.rungs).toHaveLength(1);
    expect(shown.rungs[0]).toMatchObject({ on: false });
    expect(shown.rungs[0].fault).not.toBe('');
    expect(shown.counted.records).toBe(6);
    expect(shown.faults.map((f) => f.path)).toEqual([
      'corrections[0].column',
      'ladder.rungs[0].condition.test',
      'ladder.setAside.values[0].column',
    ]);
    expect(shown.levels).toEqual(['Grand total', 'Region', 'Records']);
    expect(shown.ledgerFaults.map((f) => f.path)).toEqual([
      'tally.groups[1].column',
      'tally.sort[0].column',
      'tally.measures[0].column',
    ]);
    // Groups stay in the order of their measure, which stands at another place now.
    engine.show({ ...doc, tray: [{ ...doc.tray[0], view: { ...doc.tray[0].view, showDown: 1 } }] });
    expect(engine.lines(0, 9).map((l) => [l.label, ...l.cells.filter(Boolean)])).toEqual([
      ['North', '27'],
      ['South', '16'],
      ['blank', '1'],
    ]);
  });

  it('takes values, bands and older readings from other lists', () => {
    const bands: Table = {
      length: 2,
      columns: [
        textColumn('Name', ['few', 'many']),
        scalarColumn('From', 'number', [0, 8]),
        scalarColumn('To', 'number', [8, 20]),
      ],
    };
    const older: Table = {
      ...small,
      columns: small.columns.map((c) =>
        c.name === 'Sum' ? scalarColumn('Sum', 'number', [10, 5, 2, 7, 9, 1], { unit: '£' }) : c,
      ),
    };
    const engine = open(
      small,
      new Map([
        ['bands', bands],
        ['before', older],
      ]),
    );
    let doc = withTally(
      newBench(small, 1),
      {
        kind: 'frequency',
        key: {
          column: 'Sum',
          bands: { by: 'list', list: 'bands', from: 'From', to: 'To', label: 'Name' },
        },
      },
      'bands',
    );
    doc = withTally(
      doc,
      {
        kind: 'comparison',
        with: 'before',
        match: ['Depot', 'Day'],
        tally: { kind: 'ledger', measures: [{ kind: 'sum', column: 'Sum' }] },
      },
      'moved',
    );
    doc.ladder.rungs = [
      {
        id: 'a',
        on: true,
        condition: {
          kind: 'leaf',
          column: 'Sum',
          not: true,
          test: { test: 'listed', list: 'bands', column: 'To', exact: false },
        },
      },
    ];
    const shown = engine.show(doc);
    expect(shown.faults).toEqual([]);
    const rows = (tally: string): string[][] =>
      engine
        .ask('rows', { tally, table: 'main', across: 0, from: 0, count: 9, view: WHOLE })
        .rows.map((r) => r.cells.slice(0, 5));
    expect(rows('bands').map((r) => [r[0], r[3]])).toEqual([
      ['few', '3'],
      ['many', '3'],
      ['All records', '6'],
    ]);
    expect(rows('moved')).toEqual([['All', 'sum of Sum', '34', '44', '10']]);
  });

  it('a late question about figures that newer ones replaced is refused', () => {
    const engine = open();
    const doc = newBench(small, 1);
    const { token } = engine.show(doc);
    engine.show(doc);
    engine.show(doc);
    expect(() => engine.ask('lines', { token, from: 0, count: 1 })).toThrow(
      expect.objectContaining({ code: 'stale' }),
    );
    expect(engine.lines(0, 1)).toHaveLength(1);
  });

  it('the first ten of a million ranked records are ten rows and one rule', () => {
    const n = 1_000_000;
    const table: Table = {
      length: n,
      columns: [
        scalarColumn(
          'v',
          'number',
          Array.from({ length: n }, (_, i) => (i * 7919) % 999_983),
        ),
      ],
    };
    const engine = open(table);
    engine.show(
      withTally(newBench(table, 1), { kind: 'ranking', by: { kind: 'max', column: 'v' }, top: 10 }),
    );
    const answer = engine.ask('answer', { tally: 'other' });
    const { rows } = engine.ask('rows', {
      tally: 'other',
      table: 'main',
      across: 0,
      from: 0,
      count: 60,
      view: WHOLE,
    });
    expect(rows.map((r) => r.kind)).toEqual([
      ...Array.from({ length: 10 }, () => 'group'),
      'others',
    ]);
    expect(rows[10].cells[1]).toBe('999,990 other records');
    expect(JSON.stringify([answer, rows]).length).toBeLessThan(20_000);
    const place = { tally: 'other', table: 'main', row: 10, column: 'value' };
    expect(engine.ask('behind', { place })).toMatchObject({ records: 999_990 });
  });
});

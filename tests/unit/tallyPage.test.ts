import { describe, expect, it } from 'vitest';
import { csvOf } from '../support/handedOver';
import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { finish } from '$lib/core/task/task';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { tableOf } from '$lib/core/tally/answer/answer';
import { wholeInput } from '$lib/core/tally/input/input';
import { computeTally } from '$lib/core/tally/kind/kinds';
import { groupKeyText } from '$lib/core/tally/kinds/ledger/lines';
import { rowsInView } from '$lib/core/tally/answer/rowOrder';
import type { FigureRow } from '$lib/core/tally/answer/result';
import { Tally } from '$lib/core/tally/spec/specs';
import { Replies } from '$lib/engine/replies';
import { OpenBench } from '../support/bench';
import { noRecipe, small } from '../support/smallList';

const WHOLE = { down: 99, turned: [] };

/** A year over two quarters, a year over one, a row of what is outside, and the grand total first. */
const nested = tableOf({
  name: 'main',
  caption: 'Periods',
  labels: 1,
  columns: [
    { key: 'period', title: 'Period', unit: '', type: 'text' },
    { key: 'sum', title: 'Sum', unit: '', type: 'number' },
  ],
  rows: [
    row('total', 0, 'All', 60),
    row('total', 1, '2024', 50, 0),
    row('group', 2, 'Q1 2024', 10, 1),
    row('group', 2, 'Q2 2024', 40, 1),
    row('total', 1, '2025', 10, 0),
    row('group', 2, 'Q1 2025', 10, 4),
    row('outside', 1, 'blank', 0, 0),
  ],
});

function row(
  kind: FigureRow['kind'],
  level: number,
  label: string,
  sum: number,
  partOf?: number,
): FigureRow {
  return { kind, level, cells: [label, sum], ...(partOf !== undefined && { partOf }) };
}

const labels = (view: Parameters<typeof rowsInView>[1]): unknown[] =>
  Array.from(finish(rowsInView(nested, view)), (n) => nested.row(n).cells[0]);

describe('rows as they are looked at', () => {
  it('stand under their whole, the grand total last', () => {
    expect(labels(WHOLE)).toEqual([
      '2024',
      'Q1 2024',
      'Q2 2024',
      '2025',
      'Q1 2025',
      'blank',
      'All',
    ]);
  });

  it('fold by level and one by one', () => {
    expect(labels({ down: 1, turned: [] })).toEqual(['2024', '2025', 'blank', 'All']);
    expect(labels({ down: 1, turned: [groupKeyText(['2025'])] })).toEqual([
      '2024',
      '2025',
      'Q1 2025',
      'blank',
      'All',
    ]);
    expect(labels({ down: 2, turned: [groupKeyText(['2024'])] })).toEqual([
      '2024',
      '2025',
      'Q1 2025',
      'blank',
      'All',
    ]);
  });

  it('sort for the eye within their whole; what is outside and the total stay where they are', () => {
    expect(labels({ ...WHOLE, sort: { column: 'sum', descending: false } })).toEqual([
      '2025',
      'Q1 2025',
      '2024',
      'Q1 2024',
      'Q2 2024',
      'blank',
      'All',
    ]);
    expect(labels({ ...WHOLE, sort: { column: 'period', descending: true } })[0]).toBe('2025');
    expect(labels({ ...WHOLE, sort: { column: 'gone', descending: true } })).toEqual(labels(WHOLE));
  });
});

const withTally = (doc: Bench, tally: unknown): Bench => ({
  ...doc,
  tray: [...doc.tray, { ...doc.tray[0], id: 'other', tally: Tally.parse(tally) }],
});

/** The small list with one tally more. */
function open(tally: unknown): { bench: OpenBench; doc: Bench } {
  const bench = new OpenBench(small, noRecipe, 'Sums');
  const doc = withTally(newBench(small, 1), tally);
  bench.show(doc);
  return { bench, doc };
}

const bands = {
  kind: 'frequency',
  key: { column: 'Sum', bands: { by: 'edges', edges: [0, 5, 10, 20] } },
};

describe('records in places, sorted for the eye', () => {
  const list: Table = {
    length: 5,
    columns: [
      textColumn('Vessel', ['Nessmaid', null, 'Ironholm', 'gannet', 'Fulmar']),
      scalarColumn('Fares', 'number', [50, 20, 30, null, 10]),
    ],
  };
  const answer = finish(
    computeTally(
      wholeInput(list),
      Tally.parse({
        kind: 'ranking',
        by: { kind: 'max', column: 'Fares' },
        show: ['Vessel'],
        top: 3,
      }),
    ),
  );
  const [table] = answer.tables;
  /** The records in the order of a column; 0: all others. */
  const by = (column: string, descending: boolean): unknown[] =>
    Array.from(finish(rowsInView(table, { ...WHOLE, sort: { column, descending } })), (n) =>
      table.row(n).kind === 'group' ? table.row(n).cells[1] : 0,
    );

  it('by what is no number of the list too: places, shares, names; all others at the end', () => {
    expect(table.columns.map(({ key }) => key)).toEqual([
      'place',
      'record',
      'Vessel',
      'value',
      'share',
      'cumulativeShare',
    ]);
    expect(by('value', false)).toEqual([2, 3, 1, 0]);
    expect(by('place', true)).toEqual([2, 3, 1, 0]);
    expect(by('share', false)).toEqual([2, 3, 1, 0]);
    expect(by('cumulativeShare', true)).toEqual([2, 3, 1, 0]);
    // A record without a name comes last either way.
    expect(by('Vessel', false)).toEqual([3, 1, 2, 0]);
    expect(by('Vessel', true)).toEqual([1, 3, 2, 0]);
  });
});

describe('a tally on the page', () => {
  it('says what it came to in a few letters, and whether it foots', () => {
    const { bench } = open(bands);
    expect(bench.ask('fact', { tally: 'other' })).toEqual({ text: '3 bands', foots: true });
    const spread = open({ kind: 'spread', columns: ['Sum'] });
    expect(spread.bench.ask('fact', { tally: 'other' }).foots).toBeNull();
  });

  it('draws how all values fall: every value is in a bin, or under or over them', () => {
    const { bench } = open(bands);
    const shape = Replies.shape.parse(bench.ask('shape', { tally: 'other', from: 0 }));
    if (shape.kind !== 'bins') throw new Error('no bins');
    expect(shape.counts.reduce((a, b) => a + b, 0) + shape.under + shape.over).toBe(6);
    expect(shape.edges[0]).toBeLessThanOrEqual(0);
    expect(shape.edges.at(-1)).toBeGreaterThanOrEqual(20);
    expect([shape.least, shape.most]).toEqual([1, 12]);
  });

  it('draws all values in order, a curve a group', () => {
    const { bench } = open({ kind: 'percentile', column: 'Sum', key: { column: 'Region' } });
    const shape = Replies.shape.parse(bench.ask('shape', { tally: 'other', from: 0 }));
    if (shape.kind !== 'curves') throw new Error('no curves');
    expect(shape.curves.map((c) => [c.label, c.values, c.shares])).toEqual([
      ['North', [5, 10, 12], [1 / 3, 2 / 3, 1]],
      ['South', [7, 9], [0.5, 1]],
      ['blank', [1], [1]],
    ]);
  });

  it('is sketched before it is kept, and then costs nothing more', () => {
    const { bench, doc } = open(bands);
    const begun = Replies.questions.parse(bench.ask('questions', { wish: {}, readings: [] }));
    const frequency = begun.find((q) => q.kind === 'frequency');
    const sketch = Replies.sketch.parse(bench.ask('sketch', { spec: frequency?.tally }));
    expect(sketch.sentence).toBe(frequency?.sentence);
    expect(sketch.rows.length).toBeGreaterThan(1);
    expect(doc.tray.length).toBe(2);
  });

  it('is handed over with its sentence, What counts and its warnings', () => {
    const overlapping = open({
      kind: 'conditional',
      rows: [5, 9].map((value) => ({
        name: `over ${value}`,
        condition: { kind: 'leaf', column: 'Sum', test: { test: 'compare', op: 'gt', value } },
      })),
      columns: [{ measure: { kind: 'sum', column: 'Sum' } }],
    });
    const { text, html, guarded } = overlapping.bench.ask('copy', {
      tally: 'other',
      values: 'shown',
    });
    expect(text).toContain('Sums: 6 records\r\n6 records counted');
    expect(text).toContain('over 5\t38');
    expect(text).toContain('2 records meet more than one row and count in each.');
    expect(html).toContain('<caption>Conditional figures</caption>');
    expect(guarded).toBe(0);
    expect(csvOf(overlapping.bench, 'full', 'other')).toContain('over 9,22');
    // Both rows hold the records of the second; the matrix and its opened figure agree.
    const place = { tally: 'other', table: 'overlap', row: ['over 9'], column: 'r1' };
    expect(overlapping.bench.ask('behind', { place })).toMatchObject({ figure: '2', records: 2 });
    const other = { tally: 'other', table: 'overlap', row: ['over 5'], column: 'r2' };
    expect(overlapping.bench.ask('behind', { place: other })).toMatchObject({
      figure: '2',
      records: 2,
    });
    const several = { tally: 'other', table: 'coverage', row: 1, column: 'records' };
    expect(overlapping.bench.ask('behind', { place: several })).toMatchObject({ records: 2 });
  });

  it('opens to a condition that narrows to the very records', () => {
    const { bench, doc } = open(bands);
    const place = { tally: 'other', table: 'main', row: ['5 to under 10'], column: 'count' };
    const behind = Replies.behind.parse(bench.ask('behind', { place }));
    if (!behind.condition) throw new Error('no condition');
    doc.ladder.rungs = [{ id: 'n', on: true, condition: behind.condition }];
    expect(bench.show(doc).counted.records).toBe(behind.records);
    expect(behind.records).toBe(3);
  });

  it('all others narrow to the very records, those without a value among them', () => {
    const ranking = Tally.parse({
      kind: 'ranking',
      groups: [{ column: 'Region' }],
      by: { kind: 'records' },
      top: 1,
    });
    const { bench, doc } = open(ranking);
    const place = { tally: 'other', table: 'main', row: 1, column: 'm1' };
    const behind = Replies.behind.parse(bench.ask('behind', { place }));
    if (!behind.condition) throw new Error('no condition');
    doc.ladder.rungs = [{ id: 'n', on: true, condition: behind.condition }];
    expect(bench.show(doc).counted.records).toBe(behind.records);
    expect(behind.records).toBeGreaterThan(0);
  });
});

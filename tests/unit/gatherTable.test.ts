import { describe, expect, it } from 'vitest';
import { tableOf } from '$lib/core/tally/answer/answer';
import { acrossOf, columnsInView } from '$lib/core/tally/answer/columnsInView';
import type { FigureColumn, FigureRow } from '$lib/core/tally/answer/result';
import { gatherTable, type Asker } from '$lib/engine/gatherTable';
import type { Row, TableHead } from '$lib/engine/protocol';
import { tableColumn } from '../support/tableColumn';

const FIGURES = 230;
const ROWS = 25;
/** A wide table whose rows, labels and every seventh figure are marked; the whole comes last. */
const wide = tableOf({
  name: 'main',
  caption: 'Wide',
  labels: 1,
  columns: Array.from({ length: 1 + FIGURES }, (_, c): FigureColumn => ({
    key: `c${c}`,
    title: `Column ${c}`,
    unit: '',
    type: c === 0 ? 'text' : 'number',
  })),
  rows: Array.from({ length: ROWS }, (_, n): FigureRow => ({
    kind: n === ROWS - 1 ? 'total' : 'group',
    level: n === ROWS - 1 ? 0 : 1,
    cells: Array.from({ length: 1 + FIGURES }, (__, c) => (c === 0 ? `R${n}` : 1000 * n + c)),
    marks: [
      { kind: 'partial', words: 'the row' },
      { kind: 'doubt', column: 0, words: 'the label' },
      ...Array.from({ length: Math.floor(FIGURES / 7) }, (__, k) => ({
        kind: 'few' as const,
        column: 7 * (k + 1),
        words: `at ${7 * (k + 1)}`,
      })),
    ],
  })),
});

const headFrom = (from: number): TableHead => {
  const { columns } = columnsInView(wide, from);
  return {
    name: 'main',
    caption: '',
    labels: 1,
    length: ROWS,
    levels: 0,
    drawnWhole: false,
    across: acrossOf(wide, from),
    columns: columns.map(({ key, title, type }) =>
      tableColumn(key, { title, type, right: true, opens: true }),
    ),
  };
};
const rowFrom = (from: number, n: number): Row => {
  const row = columnsInView(wide, from).row(n);
  return {
    place: n,
    kind: row.kind,
    level: row.level,
    keys: row.keys ?? [],
    cells: row.cells.map(String),
    figures: row.cells,
    marks: row.marks ?? [],
    open: null,
  };
};

/** An engine that brings so many rows in one answer. */
function answering(most: number) {
  const asked: string[] = [];
  const ask: Asker = (kind, args) => {
    asked.push(kind);
    if (!('across' in args)) throw new Error(`asked for ${kind}`);
    const { across } = args;
    if (!('from' in args)) return headFrom(across) as never;
    const to = Math.min(ROWS, args.from + Math.min(args.count, most));
    const rows = Array.from({ length: to - args.from }, (_, k) => rowFrom(across, args.from + k));
    return { length: ROWS, rows, whole: rowFrom(across, ROWS - 1) } as never;
  };
  return { ask, asked };
}
const of = { token: 1, tally: 't', table: 'main', view: { down: 9, turned: [] } };

describe('a table with all of its columns', () => {
  it('is put together from several looks: cells, figures and marks stand where they belong', async () => {
    const { ask, asked } = answering(10);
    const { head, rows, length, whole } = await gatherTable(ask, headFrom(0), of, 1000);
    expect(asked.filter((kind) => kind === 'head')).toHaveLength(2);
    expect(head.columns.map(({ key }) => key)).toEqual(wide.columns.map(({ key }) => key));
    expect([rows.length, length]).toEqual([ROWS, ROWS]);
    for (const [n, row] of [...rows.entries(), [ROWS - 1, whole] as const]) {
      if (!row) throw new Error('the whole is not there');
      expect(row.figures).toEqual(wide.row(n).cells);
      expect(row.cells).toEqual(wide.row(n).cells.map(String));
      expect(row.marks).toEqual(wide.row(n).marks);
    }
  });

  it('has no more rows than are asked for, in all of its columns', async () => {
    const { ask } = answering(4);
    const { rows } = await gatherTable(ask, headFrom(0), of, 9);
    expect(rows.map(({ place }) => place)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8]);
    expect(rows.every(({ figures }) => figures.length === 1 + FIGURES)).toBe(true);
  });
});

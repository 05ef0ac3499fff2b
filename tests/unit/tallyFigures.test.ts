import { beforeEach, describe, expect, it } from 'vitest';
import type { View } from '$lib/core/bench/document';
import { recipeOfMade } from '$lib/core/bench/madeList';
import { newBench } from '$lib/core/bench/newBench';
import { addTally } from '$lib/core/bench/trayEdits';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { MOST_COLUMNS } from '$lib/core/tally/answer/columnsInView';
import { Tally } from '$lib/core/tally/spec/specs';
import type { Engine } from '$lib/engine/engine';
import { openEngine } from '$lib/engine/openEngine';
import { TallyFigures, WHOLE_ROWS, type RowsAtHand } from '$lib/ui/bench/tallyFigures.svelte';
import { crossModel } from '$lib/ui/tally/crosstab/model';
import { sourceOf } from '$lib/ui/tally/source';

/** Sailings of 1,300 days by 150 kiosks and 9 vessels. */
const DAYS = 1300;
const LENGTH = 3 * DAYS;
const table: Table = {
  length: LENGTH,
  columns: [
    textColumn(
      'Kiosk',
      Array.from({ length: LENGTH }, (_, i) => `Kiosk ${String(i % 150).padStart(3, '0')}`),
    ),
    textColumn(
      'Vessel',
      Array.from({ length: LENGTH }, (_, i) => `Vessel ${i % 9}`),
    ),
    scalarColumn(
      'Sailed on',
      'date',
      Array.from({ length: LENGTH }, (_, i) => 19_000 + (i % DAYS)),
    ),
    scalarColumn(
      'Fares',
      'number',
      Array.from({ length: LENGTH }, (_, i) => 100 + (i % 7)),
      { unit: '£' },
    ),
  ],
};
const SUM = { kind: 'sum', column: 'Fares' };
const VIEW: View = { showDown: 13, turned: [], totals: 'below', columns: [], fixed: 0 };

let engine: Engine;
let heaviest = 0;
/** The page's figures of one tally, over an engine beside them. */
async function shown(spec: object): Promise<TallyFigures> {
  engine = openEngine({ name: 'Sailings', table, recipe: recipeOfMade(table), others: new Map() });
  heaviest = 0;
  const doc = addTally(newBench(table, 1), Tally.parse(spec));
  const { token } = engine.now('resolve', { doc });
  const figures = new TallyFigures(
    (on, kind, args) => {
      const reply = engine.now(kind, { ...args, token: on } as never);
      heaviest = Math.max(heaviest, JSON.stringify(reply).length);
      return Promise.resolve(reply);
    },
    () => VIEW,
    (error) => {
      throw error;
    },
  );
  await figures.compute(token, doc.open, () => undefined);
  return figures;
}
const at = (figures: TallyFigures, of: 'tables' | 'first', name = 'main'): RowsAtHand => {
  const found = figures.page?.[of].get(name);
  if (!found) throw new Error(`no ${name}`);
  return found;
};
const labels = ({ rows }: RowsAtHand): string[] => rows.map(({ cells }) => cells[0]);

describe('a table with more columns than are looked at together', () => {
  const spec = {
    kind: 'crosstab',
    down: [{ column: 'Vessel' }],
    across: [{ column: 'Kiosk' }],
    measures: [SUM],
    count: true,
  };
  let figures: TallyFigures;
  beforeEach(async () => {
    figures = await shown(spec);
  });

  it('shows the first, and says how many there are', () => {
    const { head, rows, whole } = at(figures, 'tables');
    expect(head.across).toEqual({ from: 0, of: 302 });
    expect(head.columns).toHaveLength(1 + MOST_COLUMNS);
    expect(rows[0].cells).toHaveLength(1 + MOST_COLUMNS);
    // Vessel 0 is in every 9th record, kiosk 0 in every 150th: in every 450th of 3,900 both.
    expect(rows[0].cells.slice(0, 2)).toEqual(['Vessel 0', '9']);
    expect(whole?.cells[1]).toBe('26');
    expect(heaviest).toBeLessThan(200_000);
  });

  it('has bars of the largest across, in their own order', () => {
    const { head, whole } = at(figures, 'tables');
    const { page } = figures;
    const source = page && sourceOf(page).table('main');
    const model = source && crossModel(source, 'bars');
    expect(model?.left).toBe('The 5 largest groups across are drawn.');
    const sums = new Map(
      head.columns.flatMap(({ key, title }, k) =>
        key.endsWith('.m1') ? [[title.split(' › ')[0], Number(whole?.figures[k])] as const] : [],
      ),
    );
    const drawn = model?.steps.map((name) => sums.get(name) ?? NaN) ?? [];
    const others = [...sums].filter(([name]) => !model?.steps.includes(name));
    expect(drawn).toHaveLength(5);
    expect(Math.min(...drawn)).toBeGreaterThanOrEqual(Math.max(...others.map(([, sum]) => sum)));
    expect(model?.steps).toEqual([...sums.keys()].filter((name) => model?.steps.includes(name)));
    // The first five are not the largest of this list.
    expect(model?.steps).not.toEqual([...sums.keys()].slice(0, 5));
  });

  it('shows others from a column on, the chart with them, and the last are of the whole', async () => {
    await figures.lookAcross('main', 288);
    const seen = at(figures, 'tables');
    expect(seen.head.across).toEqual({ from: 288, of: 302 });
    expect(seen.head.columns.map(({ key }) => key).slice(-2)).toEqual(['all.records', 'all.m1']);
    expect(seen.rows[0].cells.at(-2)).toBe('434');
    expect(at(figures, 'first').head).toEqual(seen.head);
    const { page } = figures;
    const source = page && sourceOf(page).table('main');
    expect(source && crossModel(source, 'lines')).toMatchObject({
      steps: ['Kiosk 144', 'Kiosk 145', 'Kiosk 146', 'Kiosk 147', 'Kiosk 148', 'Kiosk 149'],
      left: 'The first 6 groups across in view are drawn.',
    });
  });

  it('keeps the columns that are looked at when the figures are computed anew', async () => {
    await figures.lookAcross('main', MOST_COLUMNS);
    const { page } = figures;
    await figures.compute(page?.token ?? 0, page?.id ?? '', () => undefined);
    expect(at(figures, 'tables').head.across.from).toBe(MOST_COLUMNS);
  });

  it('is sorted for the eye by a column that is not in view', async () => {
    figures.sort(`${figures.page?.id} main`, { column: 'all.m1', descending: true });
    await new Promise((resolve) => setTimeout(resolve));
    const { rows } = at(figures, 'tables');
    await figures.lookAcross('main', 288);
    const sums = at(figures, 'tables').rows.map((row) => Number(row.figures.at(-1)));
    expect(labels(at(figures, 'tables'))).toEqual(rows.map(({ cells }) => cells[0]));
    expect(sums.slice(0, -1)).toEqual(sums.slice(0, -1).toSorted((a, b) => b - a));
  });
});

describe('what a chart is drawn from', () => {
  it('a series: every period in the order of time, however the table is sorted', async () => {
    const figures = await shown({
      kind: 'periods',
      column: 'Sailed on',
      levels: ['day'],
      measures: [SUM],
    });
    expect(at(figures, 'tables').rows.length).toBeLessThan(DAYS);
    expect(labels(at(figures, 'first'))).toHaveLength(DAYS + 1);
    const before = labels(at(figures, 'first'));
    figures.sort(`${figures.page?.id} main`, { column: 'm1', descending: true });
    await new Promise((resolve) => setTimeout(resolve));
    expect(labels(at(figures, 'tables'))[0]).not.toBe(before[0]);
    expect(labels(at(figures, 'first'))).toEqual(before);
    expect(heaviest).toBeLessThan(200_000);
  });

  it('of groups the first, whichever rows are looked at', async () => {
    const figures = await shown({
      kind: 'frequency',
      key: { column: 'Sailed on' },
      measures: [SUM],
    });
    const before = labels(at(figures, 'first'));
    await figures.look('main', 900, 40);
    const { from, rows } = at(figures, 'tables');
    expect(from).toBeLessThanOrEqual(900);
    expect(from + rows.length).toBeGreaterThanOrEqual(940);
    expect(labels(at(figures, 'first'))).toEqual(before);
  });

  it('percentiles in the order they were asked for, however their table is sorted', async () => {
    const figures = await shown({
      kind: 'percentile',
      column: 'Fares',
      percentiles: [90, 10, 50],
      ranksOf: [104, 101],
    });
    const asked = (name: string): unknown[] =>
      at(figures, 'first', name).rows.map(({ figures: [first] }) => first);
    const before = [asked('main'), asked('ranks')];
    for (const name of ['main', 'ranks']) {
      const [key] = at(figures, 'tables', name).head.columns.map((column) => column.key);
      figures.sort(`${figures.page?.id} ${name}`, { column: key, descending: false });
      await new Promise((resolve) => setTimeout(resolve));
    }
    expect([asked('main'), asked('ranks')]).toEqual(before);
    expect(at(figures, 'tables', 'ranks').rows.map(({ figures: [first] }) => first)).toEqual([
      101, 104,
    ]);
  });

  it('of bands all, for they are kept and dragged as they are drawn', async () => {
    const edges = Array.from({ length: 701 }, (_, k) => 95 + k / 20);
    const figures = await shown({
      kind: 'frequency',
      key: { column: 'Fares', bands: { by: 'edges', edges } },
      measures: [],
    });
    const groups = at(figures, 'first').rows.filter(({ kind }) => kind === 'group');
    expect(groups.length).toBe(700);
    expect(figures.page?.answered.tables[0].drawnWhole).toBe(true);
  });
});

describe('a table of few rows that are heavy', () => {
  it('is at hand whole where it is drawn whole', async () => {
    const figures = await shown({
      kind: 'crosstab',
      down: [{ column: 'Kiosk' }],
      across: [{ column: 'Sailed on', period: 'week' }],
      measures: [SUM, { kind: 'first', column: 'Kiosk' }, { kind: 'last', column: 'Vessel' }],
      count: true,
    });
    const { rows, length } = at(figures, 'tables');
    expect(length).toBe(151);
    expect(rows.length).toBeGreaterThanOrEqual(WHOLE_ROWS);
    expect(heaviest).toBeLessThan(200_000);
  });
});

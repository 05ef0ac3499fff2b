import { describe, expect, it } from 'vitest';
import { newBench } from '$lib/core/bench/newBench';
import { newView } from '$lib/core/bench/trayEdits';
import type { Bench } from '$lib/core/bench/document';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import { Tally } from '$lib/core/tally/spec/specs';
import { openEngine } from '$lib/engine/openEngine';
import { noRecipe } from '../support/smallList';

const table = {
  length: 4,
  columns: [
    textColumn('Route', ['Holm', 'Ness', 'Skerry', 'Holm']),
    scalarColumn('Fares', 'number', [100, 20, 30, 5]),
  ],
};
const ranking = Tally.parse({
  kind: 'ranking',
  groups: [{ column: 'Route' }],
  by: { kind: 'sum', column: 'Fares' },
});
const HOLM = { table: 'main', row: [1, 'Holm'], column: 'm1' };
const bench: Bench = {
  ...newBench(table, 1),
  tray: [{ id: 'r', tally: ranking, view: newView(ranking), note: '' }],
  open: 'r',
  known: [{ id: 'k1', tally: 'r', place: HOLM, value: 105, decimals: 0, source: '', note: '' }],
};
const engine = openEngine({ name: 'Made', table, recipe: noRecipe, others: new Map() });
const known = (doc: Bench) => {
  const { token } = engine.now('resolve', { doc });
  const [now] = engine.now('known', { token });
  return { token, now };
};
const without = (record: number): Bench => ({
  ...bench,
  ladder: { ...bench.ladder, setAside: { records: [record], values: [], kept: [] } },
});

describe('a figure of a ranking', () => {
  it('is found by its group, whatever its place has become', () => {
    expect(known(bench).now).toMatchObject({ stands: 'agrees', place: HOLM });
    // Without its large fare Holm is the last of three.
    const { token, now } = known(without(1));
    expect(now).toMatchObject({ stands: 'differs', figure: '5', difference: '−100' });
    expect(now.place).toEqual({ ...HOLM, row: [3, 'Holm'] });
    const behind = engine.now('behind', { token, place: { tally: 'r', ...HOLM } });
    expect(behind).toMatchObject({ figure: '5', records: 1 });
  });

  it('all others of what moved it are not the blank group', () => {
    const list = {
      length: 6,
      columns: [
        textColumn('Route', ['Holm', 'Holm', null, null, 'Ness', 'Ness']),
        textColumn('Half', ['first', 'second', 'first', 'second', 'first', 'second']),
        scalarColumn('Fares', 'number', [1, 200, 10, 60, 5, 7]),
      ],
    };
    const moved = Tally.parse({
      kind: 'contributions',
      measure: { kind: 'sum', column: 'Fares' },
      by: [{ column: 'Route' }],
      between: { of: 'groups', key: { column: 'Half' }, from: 'first', to: 'second' },
      top: 2,
    });
    const on = openEngine({ name: 'Made', table: list, recipe: noRecipe, others: new Map() });
    const doc = { ...newBench(list, 1), known: [] };
    doc.tray = [{ id: 'm', tally: moved, view: newView(moved), note: '' }];
    const { token } = on.now('resolve', { doc: { ...doc, open: 'm' } });
    const { rows } = on.now('rows', {
      token,
      tally: 'm',
      table: 'main',
      across: 0,
      from: 0,
      count: 9,
      view: { down: 9, turned: [] },
    });
    const records = (kind: string, label: string): number => {
      const row = rows.find((r) => r.kind === kind && r.cells[0].includes(label));
      const place = { tally: 'm', table: 'main', row: [...(row?.keys ?? [])], column: 'gave' };
      return on.now('behind', { token, place }).records;
    };
    // Gave most: Holm by 199, the records without a route by 50; the others are the two of Ness.
    expect(rows.map(({ cells }) => cells[0])).toEqual(['Holm', 'blank', '1 other', 'Change']);
    expect([records('group', 'blank'), records('others', '1 other')]).toEqual([2, 2]);
    const others = rows.find(({ kind }) => kind === 'others');
    const figure = on.now('behind', {
      token,
      place: { tally: 'm', table: 'main', row: [...(others?.keys ?? [])], column: 'gave' },
    });
    expect(figure.figure).toBe('2');
  });

  it('is lost where its group is gone', () => {
    const gone = { ...bench, known: [{ ...bench.known[0], place: { ...HOLM, row: [1, 'Lyra'] } }] };
    expect(known(gone).now).toMatchObject({ stands: 'lost', place: { row: [1, 'Lyra'] } });
  });
});

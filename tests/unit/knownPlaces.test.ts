import { describe, expect, it } from 'vitest';
import { newBench } from '$lib/core/bench/newBench';
import { newView } from '$lib/core/bench/trayEdits';
import type { Bench } from '$lib/core/bench/document';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import { Tally } from '$lib/core/tally/specs';
import { Engine } from '$lib/engine/engine';
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
const engine = new Engine({ name: 'Made', table, recipe: noRecipe, others: new Map() });
const known = (doc: Bench) => {
  const { token } = engine.now('stand', { doc });
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

  it('is lost where its group is gone', () => {
    const gone = { ...bench, known: [{ ...bench.known[0], place: { ...HOLM, row: [1, 'Lyra'] } }] };
    expect(known(gone).now).toMatchObject({ stands: 'lost', place: { row: [1, 'Lyra'] } });
  });
});

import { describe, expect, it } from 'vitest';
import { newBench } from '$lib/core/bench/newBench';
import { Trouble } from '$lib/core/errors';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import { Engine } from '$lib/engine/engine';
import { LATER } from '$lib/engine/handlers/later';
import { SHOWN } from '$lib/engine/handlers/shown';
import { Requests } from '$lib/engine/requests';
import { noRecipe } from '../support/smallList';

const table = {
  length: 3,
  columns: [
    textColumn('Route', ['Ness', 'Skerry', 'Ness'], 'route'),
    scalarColumn('Fares', 'number', [10, 20, 30], { id: 'fares' }),
  ],
};
const list = { name: 'Made', table, recipe: noRecipe, others: new Map() };

describe('an engine that begins with what shows a bench', () => {
  it('answers every request in one of its two parts, and none in both', () => {
    expect([...Object.keys(SHOWN), ...Object.keys(LATER)].sort()).toEqual(
      Object.keys(Requests).sort(),
    );
  });

  it('says what it cannot answer yet, and answers it of the same stand once it has learned how', () => {
    const engine = new Engine(list, SHOWN);
    const doc = newBench(table, 1);
    const { token } = engine.now('resolve', { doc });
    const tally = doc.tray[0].id;
    expect(engine.now('ledger', { token, tally }).lines).toBeGreaterThan(0);
    expect(engine.answers('facts')).toBe(false);
    expect(() => engine.now('facts', { token, column: 'fares' })).toThrow(Trouble);
    engine.learn(LATER);
    expect(engine.answers('facts')).toBe(true);
    expect(engine.now('facts', { token, column: 'fares' }).facts).toContainEqual({
      name: 'sum',
      value: '60',
    });
    expect(engine.answers('ledger')).toBe(true);
  });
});

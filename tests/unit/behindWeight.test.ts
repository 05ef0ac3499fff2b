import { describe, expect, it } from 'vitest';
import { newBench } from '$lib/core/bench/newBench';
import { newView } from '$lib/core/bench/trayEdits';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { Tally } from '$lib/core/tally/spec/specs';
import { Replies } from '$lib/engine/replies';
import { OpenBench } from '../support/bench';
import { noRecipe } from '../support/smallList';

const N = 6000;
/** Each record a ticket of its own, on two routes. */
const table: Table = {
  length: N,
  columns: [
    textColumn(
      'Route',
      Array.from({ length: N }, (_, i) => (i % 2 ? 'Holm and Inner Isles' : 'Skerry Bank')),
    ),
    textColumn(
      'Ticket',
      Array.from({ length: N }, (_, i) => `Ticket ${i}`),
    ),
    scalarColumn(
      'Fares',
      'number',
      Array.from({ length: N }, (_, i) => i + 1),
    ),
  ],
};

/** What stands behind the records of all others, once the first so many groups are named. */
function behindOthers(top: number) {
  const tally = Tally.parse({
    kind: 'ranking',
    groups: [{ column: 'Route' }, { column: 'Ticket' }],
    by: { kind: 'sum', column: 'Fares' },
    top,
  });
  const start = newBench(table, 1);
  const bench = new OpenBench(table, noRecipe, 'Tickets');
  const item = { id: 'other', tally, view: newView(tally), note: '' };
  bench.show({ ...start, tray: [...start.tray, item] });
  bench.ask('answer', { tally: 'other' });
  const place = { tally: 'other', table: 'main', row: top, column: 'records' };
  return Replies.behind.parse(bench.ask('behind', { place }));
}

describe('what stands behind a figure weighs little, whatever it leaves out', () => {
  it('narrows to all others of a few groups by a rule', () => {
    const behind = behindOthers(3);
    expect(behind.records).toBe(N - 3);
    expect(behind.condition).toMatchObject({ kind: 'none' });
  });

  it('has no rule of thousands of groups', () => {
    const behind = behindOthers(4000);
    expect(behind.records).toBe(N - 4000);
    expect(behind.condition).toBeNull();
    expect(JSON.stringify(behind).length).toBeLessThan(200_000);
  });
});

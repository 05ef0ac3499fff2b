import { finish } from '$lib/core/task/task';
import { setMeasures } from '$lib/core/bench/edits';
import { setComputed } from '$lib/core/bench/madeEdits';
import { newBench } from '$lib/core/bench/newBench';
import type { Bench } from '$lib/core/bench/document';
import { joinColumns } from '$lib/core/prepare/join';
import { stack } from '$lib/core/prepare/reshape';
import { ComputedSpec, JoinSpec } from '$lib/core/prepare/specs';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { openEngine } from '$lib/engine/openEngine';
import { noRecipe } from '../../tests/support/smallList';
import { randomFrom } from './made';
import type { Meter } from './meter';

const KEYS = 100_000;

/** Columns made, joined and stacked, on a made list of 1,000,000 records. */
export function benchPreparing(table: Table, { time, within }: Meter): void {
  const random = randomFrom(5);
  const names = Array.from({ length: KEYS }, (_, k) => `Ticket ${k}`);
  const list: Table = {
    length: table.length,
    columns: [
      ...table.columns,
      {
        ...textColumn('ticket', []),
        codes: Int32Array.from({ length: table.length }, () => Math.floor(random() * KEYS)),
        dictionary: names,
      },
    ],
  };
  const tickets: Table = {
    length: KEYS,
    columns: [
      textColumn('ticket', names),
      scalarColumn(
        'price',
        'number',
        names.map((_, k) => k % 97),
      ),
    ],
  };
  const before = newBench(list, 1);

  /** From a change of the bench to its first lines, by an engine that stands at the bench before. */
  const toLines = (doc: Bench): number => {
    let best = Infinity;
    for (let k = 0; k < 5; k++) {
      const engine = openEngine({ name: 'Made', table: list, recipe: noRecipe, others: new Map() });
      const show = (shown: Bench): void => {
        const { token } = engine.now('resolve', { doc: shown });
        const [{ id: tally }] = shown.tray;
        engine.now('ledger', { token, tally });
        engine.now('lines', { token, tally, from: 0, count: 60 });
        engine.now('footing', { token, tally });
      };
      show(before);
      const start = performance.now();
      show(doc);
      best = Math.min(best, performance.now() - start);
    }
    return best;
  };
  const worked = ComputedSpec.parse({
    name: 'rate',
    expression: 'fares / NULLIF(boarded + vehicles, 0)',
  });
  const shown = setMeasures(setComputed(before, null, worked), [{ kind: 'sum', column: 'rate' }]);
  within('a worked-out column of three columns, to the ledger that shows it', toLines(shown), 150);

  const engine = openEngine({ name: 'Made', table: list, recipe: noRecipe, others: new Map() });
  const { token } = engine.now('resolve', { doc: before });
  within(
    'its preview after a keystroke',
    time(() => engine.now('draft', { token, spec: worked, at: null, whole: false }), 5),
    50,
  );
  const join = JoinSpec.parse({
    list: 'Tickets',
    on: [{ column: 'ticket' }],
    bring: [{ column: 'price' }],
  });
  within(
    'a column joined to 1,000,000 records by 100,000 keys',
    time(() => finish(joinColumns(list, tickets, join, (name) => name)), 5),
    400,
  );

  const kiosks: Table = {
    length: 100_000,
    columns: [
      scalarColumn(
        'day',
        'date',
        names.map((_, k) => 19_000 + k),
      ),
      ...Array.from({ length: 12 }, (_, c) =>
        scalarColumn(
          `kiosk ${c + 1}`,
          'number',
          names.map((_, k) => (k * (c + 3)) % 411),
        ),
      ),
    ],
  };
  const columns = kiosks.columns.slice(1).map((c) => c.id);
  within(
    'stacking 12 columns of 100,000 records',
    time(
      () =>
        finish(
          stack(kiosks, { do: 'stack', columns, name: 'Kiosk', value: 'Sold', dropBlanks: false }),
        ),
      5,
    ),
    1000,
  );
}

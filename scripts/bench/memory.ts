import { answerAsk } from '$lib/core/ask/answerAsk';
import { readAsk } from '$lib/core/ask/badAsk';
import { setGroups } from '$lib/core/bench/edits';
import { newBench } from '$lib/core/bench/newBench';
import { finish } from '$lib/core/task/task';
import { tableBytes, type Table } from '$lib/core/table/table';
import { openEngine } from '$lib/engine/openEngine';
import { noRecipe } from '../../tests/support/smallList';
import type { Meter, Result } from './meter';

/** What an open list holds, and what asks leave behind. */
export function benchMemory(table: Table, meter: Meter, results: Result[]): void {
  memoryOfOpenList(table, meter);
  askMemory(table, results);
}

/** Memory of a list that is open. */
function memoryOfOpenList(table: Table, { atMost }: Meter): void {
  globalThis.gc?.();
  globalThis.gc?.();
  const before = process.memoryUsage();
  const engine = openEngine({
    name: 'Made',
    table,
    recipe: noRecipe,
    others: new Map(),
  });
  const doc = setGroups(
    newBench(table, 1),
    ['route', 'vessel'].map((column) => ({
      column,
      loose: false,
      order: { by: 'label', descending: false },
    })),
  );
  const show = (): void => {
    const { token } = engine.now('resolve', { doc: structuredClone(doc) });
    const at = { token, tally: doc.open };
    engine.now('ledger', at);
    engine.now('footing', at);
    engine.now('heads', { ...at, from: 0 });
  };
  show();
  for (const id of ['fares', 'delay']) {
    doc.ladder.rungs.push({
      id,
      on: true,
      condition: {
        kind: 'leaf',
        column: id,
        not: false,
        test: { test: 'compare', op: 'ge', value: 2 },
      },
    });
    show();
  }
  globalThis.gc?.();
  const after = process.memoryUsage();
  const held =
    tableBytes(table) +
    (after.heapUsed + after.arrayBuffers - before.heapUsed - before.arrayBuffers);
  atMost(
    'memory of an open list of 1,000,000 records, reckoned three times',
    held / tableBytes(table),
    3,
    'its columns',
  );
}

/** What many asks with expressions leave behind. */
function askMemory(table: Table, results: Result[]): void {
  const small: Table = {
    length: 20_000,
    columns: table.columns.map((c) =>
      'codes' in c
        ? { ...c, codes: c.codes.slice(0, 20_000) }
        : { ...c, values: c.values.slice(0, 20_000) },
    ),
  };
  const held = (): number => {
    globalThis.gc?.();
    const { heapUsed, arrayBuffers } = process.memoryUsage();
    return (heapUsed + arrayBuffers) / 1e6;
  };
  const run = (k: number): unknown =>
    finish(
      answerAsk(
        { name: 'Made', table: small, others: new Map() },
        readAsk({
          tallies: [
            {
              kind: 'ledger',
              groups: [{ column: 'route' }],
              measures: [{ kind: 'sum', column: `expression: fares * ${k}` }],
            },
          ],
        }),
      ),
    ).result.tallies.length;
  for (let k = 1; k <= 20; k++) run(k);
  const before = held();
  for (let k = 21; k <= 220; k++) run(k);
  const left = held() - before;
  results.push({
    work: 'what 200 asks in a row leave behind',
    bar: 'at most 10 MB',
    measured: `${Math.max(0, left).toFixed(1)} MB`,
    holds: left <= 10,
  });
}

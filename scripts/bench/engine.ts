import { PerformanceObserver } from 'node:perf_hooks';
import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { newView } from '$lib/core/bench/trayEdits';
import type { Table } from '$lib/core/table/table';
import { Tally } from '$lib/core/tally/spec/specs';
import { openEngine } from '$lib/engine/openEngine';
import type { ArgsOf, Do, ReplyOf } from '$lib/engine/protocol';
import { noRecipe } from '../../tests/support/smallList';
import type { Meter, Result } from './meter';

const VIEW = { down: 99, turned: [] };

/** Tallies of every kind that the page may be looking at. */
export const KINDS: readonly unknown[] = [
  {
    kind: 'crosstab',
    down: [{ column: 'route' }],
    across: [{ column: 'weather' }],
    measures: [{ kind: 'mean', column: 'fares' }],
  },
  {
    kind: 'conditional',
    rows: [
      {
        name: 'late',
        condition: {
          kind: 'leaf',
          column: 'delay',
          test: { test: 'compare', op: 'ge', value: 10 },
        },
      },
      {
        name: 'gale',
        condition: { kind: 'leaf', column: 'weather', test: { test: 'is', values: ['gale'] } },
      },
    ],
    columns: [{ measure: { kind: 'sum', column: 'fares' } }],
  },
  {
    kind: 'frequency',
    key: { column: 'delay', bands: { by: 'edges', edges: [0, 1, 5, 10, 20, 99] } },
  },
  { kind: 'spread', columns: ['delay'], key: { column: 'route' } },
  { kind: 'percentile', column: 'delay', ranksOf: [20] },
  { kind: 'ranking', by: { kind: 'max', column: 'fares' } },
  { kind: 'ranking', groups: [{ column: 'vessel' }], by: { kind: 'sum', column: 'fares' }, top: 5 },
  {
    kind: 'periods',
    column: 'day',
    levels: ['year', 'month'],
    measures: [{ kind: 'sum', column: 'fares' }],
    against: ['yearBefore'],
  },
  {
    kind: 'growth',
    series: { column: 'day', period: 'year', measure: { kind: 'sum', column: 'fares' } },
  },
  {
    kind: 'forecast',
    series: { column: 'day', period: 'month', measure: { kind: 'sum', column: 'fares' } },
  },
];

interface Stretch {
  /** When it began, on the clock of `performance`. */
  readonly from: number;
  readonly ms: number;
  readonly at: string;
}

const longestOf = (stretches: readonly Stretch[]): Stretch =>
  stretches.reduce((a, b) => (b.ms > a.ms ? b : a), { from: 0, ms: 0, at: '' });

/** Collections of garbage, which the engine can put off but not part. */
class Collections {
  readonly #found: { readonly from: number; readonly ms: number }[] = [];
  readonly #observer = new PerformanceObserver((list) => {
    for (const { startTime, duration } of list.getEntries())
      this.#found.push({ from: startTime, ms: duration });
  });

  constructor() {
    this.#observer.observe({ entryTypes: ['gc'] });
  }

  /** The same stretches without the collections that fell into them. */
  async takenOff(stretches: readonly Stretch[]): Promise<Stretch[]> {
    // They are told of a turn later.
    await new Promise((told) => setTimeout(told, 100));
    this.#observer.disconnect();
    return stretches.map((stretch) => {
      const within = this.#found.filter(
        ({ from }) => from >= stretch.from && from < stretch.from + stretch.ms,
      );
      return { ...stretch, ms: stretch.ms - within.reduce((sum, { ms }) => sum + ms, 0) };
    });
  }
}

/** What the engine does for the page, on a made list of 1,000,000 records. */
export async function benchEngine(
  table: Table,
  { within }: Meter,
  results: Result[],
): Promise<void> {
  const engine = openEngine({
    name: 'Made',
    table,
    recipe: noRecipe,
    others: new Map(),
  });
  const start = newBench(table, 1);
  const [ledger] = start.tray;
  const doc: Bench = {
    ...start,
    tray: [
      {
        ...ledger,
        tally: Tally.parse({ kind: 'ledger', measures: [{ kind: 'running', column: 'fares' }] }),
        view: { ...ledger.view, showDown: 1 },
      },
      ...KINDS.map((spec, k) => {
        const tally = Tally.parse(spec);
        return { id: `t${k}`, tally, view: newView(tally), note: '' };
      }),
    ],
  };
  /** Work between two pauses, over all that was asked: the longer ones. */
  const stretches: Stretch[] = [];
  const collections = new Collections();
  function ask<K extends Do>(kind: K, args: ArgsOf<K>): { reply: ReplyOf<K>; ms: number } {
    const begun = performance.now();
    const steps = engine.answer(kind, args);
    for (;;) {
      const from = performance.now();
      const step = steps.next();
      const took = performance.now() - from;
      if (took > 4) stretches.push({ from, ms: took, at: kind });
      if (step.done) return { reply: step.value, ms: performance.now() - begun };
    }
  }
  const { token } = ask('resolve', { doc }).reply;
  const tally = 'ledger';
  const { lines } = ask('ledger', { token, tally }).reply;
  ask('lines', { token, tally, from: 0, count: 60 });
  within(
    '60 lines with a running total at the end of 1,000,000, once the ledger stands',
    ask('lines', { token, tally, from: lines - 60, count: 60 }).ms,
    30,
  );
  const first = ask('facts', { token, column: 'fuel' }).ms;
  within(
    'a column’s facts the first time (median of 5 lists)',
    middle([first, ...firstFacts(table, 4)]),
    120,
  );
  within('and again', ask('facts', { token, column: 'fuel' }).ms, 20);
  const place = { tally: 't0', table: 'main', row: ['Route 3'], column: 'all.m1' };
  ask('answer', { token, tally: 't0' });
  within('behind a figure', ask('behind', { token, place }).ms, 60);
  const ranking = doc.tray.find((item) => item.tally.kind === 'ranking')?.id ?? '';
  ask('answer', { token, tally: ranking });
  const ranked = { token, tally: ranking, table: 'main', across: 0, view: VIEW };
  const [far] = ask('rows', { ...ranked, from: 990_000, count: 1 }).reply.rows;
  const share = { tally: ranking, table: 'main', row: far.keys, column: 'cumulativeShare' };
  within(
    'behind a share down to one of the last of 1,000,000 places',
    ask('behind', { token, place: share }).ms,
    60,
  );
  let heaviest = { bytes: 0, at: '' };
  for (const item of doc.tray.slice(1)) {
    const answered = ask('answer', { token, tally: item.id }).reply;
    const rows = answered.tables.map(
      ({ name }) =>
        ask('rows', {
          token,
          tally: item.id,
          table: name,
          across: 0,
          from: 0,
          count: 400,
          view: VIEW,
        }).reply,
    );
    const shape = ask('shape', { token, tally: item.id, from: 0 }).reply;
    ask('footing', { token, tally: item.id });
    ask('fact', { token, tally: item.id });
    const bytes = JSON.stringify([answered, rows, shape]).length;
    if (bytes > heaviest.bytes) heaviest = { bytes, at: item.tally.kind };
  }
  results.push({
    work: 'the heaviest answer of any tally to the page',
    bar: 'under 200 kB',
    measured: `${Math.round(heaviest.bytes / 1000)} kB (${heaviest.at})`,
    holds: heaviest.bytes < 200_000,
  });
  const longest = longestOf(stretches);
  const own = longestOf(await collections.takenOff(stretches));
  results.push({
    work: 'the longest the engine works without a pause, in any of these requests, collection of garbage taken off',
    bar: 'at most 12 ms',
    measured: `${own.ms.toFixed(1)} ms (${own.at}); with it ${longest.ms.toFixed(1)} ms`,
    holds: own.ms <= 12,
  });
}

/** How long a column's facts take on lists that were not looked at before, in milliseconds. */
function firstFacts(table: Table, times: number): number[] {
  return Array.from({ length: times }, () => {
    const fresh: Table = {
      ...table,
      columns: table.columns.map((c) => ('codes' in c ? c : { ...c, values: c.values.slice() })),
    };
    const engine = openEngine({ name: 'Made', table: fresh, recipe: noRecipe, others: new Map() });
    const { token } = engine.now('resolve', { doc: newBench(fresh, 1) });
    const begun = performance.now();
    engine.now('facts', { token, column: 'fuel' });
    return performance.now() - begun;
  });
}

const middle = (values: readonly number[]): number =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)];

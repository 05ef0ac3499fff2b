import { sortRecords } from '$lib/core/arrange/sort';
import { answerAsk } from '$lib/core/ask/answerAsk';
import { readAsk } from '$lib/core/ask/badAsk';
import { computeColumn } from '$lib/core/expression/evaluate';
import { bestOf, fitMethod, tryMethods } from '$lib/core/forecast/holdOut';
import { METHODS } from '$lib/core/forecast/method';
import { finish } from '$lib/core/task/task';
import type { ScalarColumn, TextColumn } from '$lib/core/table/column';
import { columnOf, tableBytes, type Table } from '$lib/core/table/table';
import { wholeInput } from '$lib/core/tally/input/input';
import { computeTally } from '$lib/core/tally/kind/kinds';
import { TallyMemo } from '$lib/core/tally/kind/memo';
import { Tally } from '$lib/core/tally/spec/specs';
import { rankBy } from '$lib/core/tally/kinds/ranking/rankBy';
import type { Meter } from './meter';

const scalar = (table: Table, id: string): ScalarColumn => columnOf(table, id) as ScalarColumn;

/** The bars of tallies, expressions and asks, on a made list of 1,000,000 records. */
export function benchTallies(table: Table, { time, ratio, atMost, within }: Meter): void {
  const input = wholeInput(table);
  const fares = scalar(table, 'fares').values;
  const { codes, dictionary } = columnOf(table, 'route') as TextColumn;
  const bare = (): Float64Array => {
    const sums = new Float64Array(dictionary.length);
    for (let i = 0; i < fares.length; i++) sums[codes[i]] += fares[i];
    return sums;
  };
  const tally = (spec: object): (() => unknown) => {
    const parsed = Tally.parse(spec);
    // Steps kept from the call before would make the next one look quick.
    return () => finish(computeTally({ ...input, memo: new TallyMemo() }, parsed));
  };
  atMost(
    'a cross-tab of two keys with mean, count and the distinct count of a text column',
    ratio(
      tally({
        kind: 'crosstab',
        down: [{ column: 'route' }],
        across: [{ column: 'weather' }],
        measures: [
          { kind: 'mean', column: 'fares' },
          { kind: 'records' },
          { kind: 'distinct', column: 'vessel' },
        ],
      }),
      bare,
      15,
    ),
    20,
    'a bare loop that sums by a ready key',
  );
  atMost(
    'a month rollup with year-on-year change',
    ratio(
      tally({
        kind: 'periods',
        column: 'day',
        levels: ['month'],
        measures: [{ kind: 'sum', column: 'fares' }],
        against: ['yearBefore'],
      }),
      bare,
      15,
    ),
    8,
    'that loop',
  );
  const column = scalar(table, 'fares');
  const ranking = ratio(
    () => finish(rankBy(input.all, column, true, 'gap', input.order)),
    () => finish(sortRecords(table, [{ column: 'fares', descending: true, blanks: 'last' }])),
  );
  atMost('ranking 1,000,000 records', ranking, 1.3, 'the sort by that column');
  const [boarded, vehicles] = [scalar(table, 'boarded').values, scalar(table, 'vehicles').values];
  const byHand = (): Float64Array => {
    const out = new Float64Array(table.length);
    for (let i = 0; i < out.length; i++) out[i] = (fares[i] - boarded[i] * 2.5) / vehicles[i];
    return out;
  };
  const facts = { id: 'x', name: 'x', unit: '' };
  const compiled = ratio(
    () => finish(computeColumn(table, '(fares - boarded * 2.5) / vehicles', facts)),
    byHand,
    15,
  );
  atMost('a compiled arithmetic expression of three columns', compiled, 3, 'a hand-written loop');
  const series = {
    y: Float64Array.from(
      { length: 120 },
      (_, t) => 900 + 4 * t + 200 * Math.sin(t / 1.9) + ((t * 7919) % 97),
    ),
    season: 12,
  };
  within(
    'a forecast with the choice of the best of all methods on 120 points',
    time(() => {
      const best = bestOf(finish(tryMethods(series, METHODS, {}, 12))) ?? 'naive';
      return finish(fitMethod(best, series, {}));
    }),
    150,
  );
  memoryOfAnAsk(table, atMost);
}

/** Memory at every pause of an ask, with what is no more needed let go first. */
function memoryOfAnAsk(table: Table, atMost: Meter['atMost']): void {
  const ask = readAsk({
    computed: [{ name: 'each', expression: 'fares / NULLIF(boarded, 0)' }],
    ladder: { rungs: [{ condition: { kind: 'expression', expression: 'delay >= 1' } }] },
    sort: [{ column: 'fares', descending: true }],
    tallies: [
      {
        kind: 'ledger',
        groups: [{ column: 'route' }, { column: 'vessel' }],
        measures: [
          { kind: 'sum', column: 'fares' },
          { kind: 'median', column: 'each' },
        ],
      },
      {
        kind: 'crosstab',
        down: [{ column: 'route' }],
        across: [{ column: 'weather' }],
        measures: [{ kind: 'mean', column: 'each' }],
      },
      { kind: 'frequency', key: { column: 'fares', bands: { by: 'equalCount', count: 10 } } },
      { kind: 'periods', column: 'day', levels: ['month'], measures: [{ kind: 'records' }] },
    ],
  });
  const held = (): number => {
    globalThis.gc?.();
    const { heapUsed, arrayBuffers } = process.memoryUsage();
    return heapUsed + arrayBuffers;
  };
  const bytes = tableBytes(table);
  const before = held() - bytes;
  let most = 0;
  const steps = answerAsk({ name: 'Made', table, others: new Map() }, ask);
  for (let k = 0; ; k++) {
    const step = steps.next();
    if (k % 4 === 0 || step.done) most = Math.max(most, held() - before);
    if (step.done) break;
  }
  atMost('memory of an ask on 1,000,000 records of 12 columns', most / bytes, 3, 'its columns');
}

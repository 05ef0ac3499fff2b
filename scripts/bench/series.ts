import { fitLines } from '$lib/core/measure/line';
import { finish } from '$lib/core/task/task';
import { scalarColumn, textColumn, type ScalarColumn } from '$lib/core/table/column';
import { columnOf, type Table } from '$lib/core/table/table';
import { wholeInput } from '$lib/core/tally/input/input';
import { computeTally } from '$lib/core/tally/kind/kinds';
import { TallyMemo } from '$lib/core/tally/kind/memo';
import { Tally } from '$lib/core/tally/spec/specs';
import type { Meter } from './meter';

/** The bars of series by groups, of the line and of places within groups, on 1,000,000 records. */
export function benchSeries(made: Table, { time, ratio, atMost, within }: Meter): void {
  const table = withGroups(made);
  const input = wholeInput(table);
  const tally = (spec: object): (() => unknown) => {
    const parsed = Tally.parse(spec);
    return () => finish(computeTally({ ...input, memo: new TallyMemo() }, parsed));
  };
  const rollup = {
    kind: 'periods',
    column: 'day',
    levels: ['month'],
    measures: [{ kind: 'sum', column: 'fares' }],
    against: ['yearBefore'],
  };
  atMost(
    'a month rollup by 50 groups and the whole',
    ratio(tally({ ...rollup, by: [{ column: 'fifty' }] }), tally(rollup), 11),
    2,
    'the rollup alone',
  );
  const x = (columnOf(table, 'boarded') as ScalarColumn).values;
  const y = (columnOf(table, 'fares') as ScalarColumn).values;
  const leafOf = new Int32Array(table.length);
  const records = input.order;
  const bare = (): number => {
    let [a, b] = [0, 0];
    for (let k = 0; k < records.length; k++) {
      const i = records[k];
      if (x[i] !== x[i] || y[i] !== y[i]) continue;
      a += x[i];
      b += y[i];
    }
    return a + b;
  };
  atMost(
    'the line through two columns',
    ratio(() => finish(fitLines({ x, y, records, leafOf, leaves: 1, origin: false })), bare, 15),
    4,
    'a bare loop over the two',
  );
  const fares = columnOf(table, 'fares') as ScalarColumn;
  // A sort of its own each time: the one kept with the column would make the second look quick.
  const fresh = (): ScalarColumn => ({ ...fares, values: fares.values.slice() });
  const places = (groups: object[], depth: number): (() => unknown) => {
    const spec = Tally.parse({
      kind: 'ranking',
      groups,
      within: depth,
      by: { kind: 'sum', column: 'fares' },
    });
    return () => {
      const own = { ...table, columns: table.columns.map((c) => (c === fares ? fresh() : c)) };
      return finish(computeTally({ ...input, table: own, memo: new TallyMemo() }, spec));
    };
  };
  atMost(
    'places of 1,000,000 records within 1,000 groups',
    ratio(places([{ column: 'thousand' }], 1), places([], 0)),
    1.4,
    'the ranking of all',
  );
  const two = monthly(200, 60);
  const spec = Tally.parse({
    kind: 'forecast',
    series: {
      column: 'month',
      period: 'month',
      measure: { kind: 'sum', column: 'v' },
      by: [{ column: 'group' }],
    },
  });
  within(
    'forecasts of 200 monthly series of 60 points, the best method chosen for each',
    time(() => finish(computeTally(wholeInput(two), spec)), 3),
    2000,
  );
}

/** The made list with two keys more: one of 50 values, one of 1,000. */
export function withGroups(made: Table): Table {
  const texts = (count: number): string[] =>
    Array.from({ length: made.length }, (_, i) => `g${(i * 7919) % count}`);
  return {
    length: made.length,
    columns: [...made.columns, textColumn('fifty', texts(50)), textColumn('thousand', texts(1000))],
  };
}

/** So many series, a record for each month. */
function monthly(groups: number, months: number): Table {
  const n = groups * months;
  return {
    length: n,
    columns: [
      textColumn(
        'group',
        Array.from({ length: n }, (_, i) => `s${i % groups}`),
      ),
      scalarColumn(
        'month',
        'date',
        Array.from({ length: n }, (_, i) =>
          Math.floor(Date.UTC(2020, Math.floor(i / groups), 1) / 86_400_000),
        ),
      ),
      scalarColumn(
        'v',
        'number',
        Array.from({ length: n }, (_, i) => {
          const [g, t] = [i % groups, Math.floor(i / groups)];
          return 500 + 3 * t + 100 * Math.sin((t * Math.PI) / 6 + g) + ((i * 7919) % 53);
        }),
      ),
    ],
  };
}

import fc from 'fast-check';
import type { Bench } from '$lib/core/bench/document';
import { newBench } from '$lib/core/bench/newBench';
import { newView } from '$lib/core/bench/trayEdits';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { Tally } from '$lib/core/tally/spec/specs';

/** 240 records with every sort of trouble: blanks, twins in case, equal values, a value far off. */
export const table: Table = {
  length: 240,
  columns: [
    textColumn(
      'Route',
      Array.from({ length: 240 }, (_, i) => [' Ness', 'Ness', 'Holm', null, 'Skerry'][(i * 7) % 5]),
    ),
    textColumn(
      'Vessel',
      Array.from({ length: 240 }, (_, i) => ['Tern', 'Auk', 'Gannet'][(i * 11) % 3]),
    ),
    scalarColumn(
      'Fares',
      'number',
      Array.from({ length: 240 }, (_, i) =>
        i % 17 === 0 ? NaN : i === 99 ? 1e6 : ((i * 37) % 97) / 4,
      ),
      { unit: '£', decimals: 2 },
    ),
    scalarColumn(
      'Delay',
      'number',
      Array.from({ length: 240 }, (_, i) => (i % 13 === 0 ? NaN : (i * 5) % 31)),
      { unit: 'min' },
    ),
    scalarColumn(
      'Day',
      'date',
      Array.from({ length: 240 }, (_, i) => 19_700 + Math.floor(i * 4.3)),
    ),
  ],
};

const column = fc.constantFrom('Fares', 'Delay');
const period = fc.constantFrom('month', 'quarter', 'year');
const key = fc.oneof(
  fc.record({ column: fc.constantFrom('Route', 'Vessel'), loose: fc.boolean() }),
  fc.record({ column: fc.constant('Day'), period }),
  fc.record({
    column,
    bands: fc.oneof(
      fc.record({ by: fc.constant('width'), width: fc.integer({ min: 3, max: 12 }) }),
      fc.record({ by: fc.constant('equalCount'), count: fc.integer({ min: 2, max: 6 }) }),
      fc.constant({ by: 'edges', edges: [0, 5, 10, 31] }),
    ),
  }),
);
const measure = fc.oneof(
  fc.record({
    kind: fc.constantFrom(
      'sum',
      'mean',
      'median',
      'min',
      'max',
      'sd',
      'distinct',
      'values',
      'first',
      'last',
      'mode',
      'iqr',
    ),
    column,
  }),
  fc.record({
    kind: fc.constantFrom('ratio', 'difference'),
    column: fc.constant('Fares'),
    other: fc.constant('Delay'),
  }),
  fc.constant({ kind: 'records' }),
  fc.record({ kind: fc.constant('percentile'), column, percent: fc.integer({ min: 0, max: 100 }) }),
  fc.record({
    kind: fc.constantFrom('atMin', 'atMax'),
    column,
    other: fc.constantFrom('Vessel', 'Day'),
  }),
);
const measures = fc.array(measure, { minLength: 1, maxLength: 3 });
const scope = fc.constantFrom('counted', 'narrowed', 'all');
const condition = fc.oneof(
  fc.record({
    kind: fc.constant('leaf'),
    column,
    not: fc.boolean(),
    test: fc.record({
      test: fc.constant('compare'),
      op: fc.constantFrom('ge', 'lt', 'eq'),
      value: fc.integer({ min: 0, max: 25 }),
    }),
  }),
  fc.constant({ kind: 'expression', expression: "Route = 'Holm' OR Delay > 20" }),
);
const by = fc.constantFrom([], [{ column: 'Vessel' }], [{ column: 'Route' }, { column: 'Vessel' }]);
const series = fc.record({ column: fc.constant('Day'), period, measure, by });

const ledger = fc.record({
  kind: fc.constant('ledger'),
  scope,
  groups: fc.uniqueArray(key, { maxLength: 2, selector: (k) => k.column }),
  measures,
  sort: fc.array(fc.record({ column, descending: fc.boolean() }), { maxLength: 1 }),
  records: fc.boolean(),
});

/** Specs of each kind, out of the whole of what each can be asked. */
export const SPECS: Record<Tally['kind'], fc.Arbitrary<unknown>> = {
  ledger,
  crosstab: fc.record({
    kind: fc.constant('crosstab'),
    scope,
    down: fc.array(key, { minLength: 1, maxLength: 2 }),
    across: fc.array(key, { minLength: 1, maxLength: 1 }),
    measures: fc.constant([
      { kind: 'sum', column: 'Fares' },
      { kind: 'median', column: 'Delay' },
    ]),
    shares: fc.uniqueArray(fc.constantFrom('row', 'column', 'total')),
    count: fc.boolean(),
  }),
  conditional: fc.record({
    kind: fc.constant('conditional'),
    scope,
    rows: fc.array(fc.record({ name: fc.constantFrom('one', 'two'), condition }), {
      minLength: 1,
      maxLength: 3,
    }),
    everythingElse: fc.boolean(),
    columns: fc.array(fc.record({ measure }, { requiredKeys: ['measure'] }), {
      minLength: 1,
      maxLength: 2,
    }),
  }),
  frequency: fc.record({ kind: fc.constant('frequency'), scope, key, measures }),
  spread: fc.record({
    kind: fc.constant('spread'),
    scope,
    columns: fc.uniqueArray(column, { minLength: 1, maxLength: 2 }),
    key,
  }),
  percentile: fc.record({
    kind: fc.constant('percentile'),
    scope,
    column,
    percentiles: fc.uniqueArray(fc.integer({ min: 0, max: 100 }), { minLength: 1, maxLength: 4 }),
    definition: fc.integer({ min: 1, max: 9 }),
    ranksOf: fc.array(fc.integer({ min: 0, max: 40 }), { maxLength: 2 }),
  }),
  ranking: fc
    .record({
      kind: fc.constant('ranking'),
      scope,
      groups: fc.constantFrom(
        [{ column: 'Vessel' }],
        [{ column: 'Route' }, { column: 'Vessel' }],
        [],
      ),
      // As many as there are groups: records within them.
      within: fc.constantFrom(0, 1),
      by: fc.record({ kind: fc.constant('sum'), column }),
      from: fc.constantFrom('highest', 'lowest'),
      ties: fc.constantFrom('gap', 'noGap', 'order', 'mean'),
      top: fc.integer({ min: 1, max: 12 }),
    })
    .map((spec) => ({ ...spec, within: Math.min(spec.within, spec.groups.length) })),
  periods: fc.record({
    kind: fc.constant('periods'),
    scope,
    column: fc.constant('Day'),
    levels: fc.constantFrom(['year', 'month'], ['quarter'], ['year', 'quarter', 'month']),
    measures: fc.constant([
      { kind: 'sum', column: 'Fares' },
      { kind: 'mean', column: 'Delay' },
    ]),
    against: fc.uniqueArray(fc.constantFrom('previous', 'yearBefore')),
    running: fc.boolean(),
    toDate: fc.boolean(),
    by,
    nest: fc.constantFrom('periods', 'groups'),
  }),
  growth: fc.record({ kind: fc.constant('growth'), scope, series }),
  forecast: fc.record({
    kind: fc.constant('forecast'),
    scope,
    series: fc.record({ column: fc.constant('Day'), period: fc.constant('month'), measure }),
    method: fc.constantFrom('best', 'naive', 'line', 'smoothing'),
    gaps: fc.constant('zero'),
    horizon: fc.integer({ min: 1, max: 5 }),
  }),
  line: fc.oneof(
    fc.record({
      kind: fc.constant('line'),
      scope,
      x: fc.constant('Delay'),
      y: fc.constant('Fares'),
      by,
      origin: fc.boolean(),
      at: fc.array(fc.integer({ min: -5, max: 50 }), { maxLength: 2 }),
    }),
    fc.record({ kind: fc.constant('line'), scope, series }),
  ),
  contributions: fc.record({
    kind: fc.constant('contributions'),
    scope,
    measure: fc.constantFrom(
      { kind: 'sum', column: 'Fares' },
      { kind: 'mean', column: 'Fares' },
      { kind: 'records' },
    ),
    by: fc.constantFrom(
      [{ column: 'Vessel' }],
      [{ column: 'Route' }],
      [{ column: 'Route' }, { column: 'Vessel' }],
    ),
    between: fc.oneof(
      fc.record({ of: fc.constant('periods'), column: fc.constant('Day'), period }),
      fc.constant({ of: 'groups', key: { column: 'Vessel' }, from: 'Auk', to: 'Tern' }),
    ),
    order: fc.constantFrom('size', 'label'),
    top: fc.integer({ min: 1, max: 4 }),
  }),
  nested: fc.record({
    kind: fc.constant('nested'),
    inner: fc.constant({
      kind: 'ledger',
      groups: [{ column: 'Route' }, { column: 'Vessel' }],
      measures: [{ kind: 'sum', column: 'Fares' }],
    }),
    outer: fc.record({
      kind: fc.constant('ledger'),
      groups: fc.constant([{ column: 'Route' }]),
      measures: fc.constantFrom(
        [{ kind: 'max', column: 'm1' }],
        [
          { kind: 'atMax', column: 'm1', other: 'Vessel' },
          { kind: 'mean', column: 'm1' },
        ],
      ),
    }),
  }),
  comparison: fc.record({
    kind: fc.constant('comparison'),
    with: fc.constant('before'),
    tally: ledger,
    match: fc.constant(['Day', 'Vessel']),
    unmoved: fc.boolean(),
  }),
  reconciliation: fc.record({
    kind: fc.constant('reconciliation'),
    with: fc.constant('before'),
    // Texts and dates have no difference.
    measure: measure.filter(({ kind }) => kind !== 'atMin' && kind !== 'atMax'),
    by: fc.array(key, { minLength: 1, maxLength: 2 }),
    tolerance: fc.record({
      in: fc.constantFrom('amount', 'percent'),
      most: fc.integer({ min: 0, max: 20 }),
    }),
    apart: fc.boolean(),
    order: fc.constantFrom('size', 'label'),
  }),
};

/** The same list before: some records fewer, and one fare changed. */
export const before: Table = {
  length: 230,
  columns: table.columns.map((c) =>
    'codes' in c
      ? { ...c, codes: c.codes.slice(0, 230) }
      : {
          ...c,
          values: c.values.slice(0, 230).map((v, i) => (c.name === 'Fares' && i === 7 ? 3 : v)),
        },
  ),
};

/** A bench of the list with one more tally in its tray, `other`. */
export function benchWith(tally: unknown, rungs: Bench['ladder']['rungs'], aside: number[]): Bench {
  const doc = newBench(table, 1);
  const parsed = Tally.parse(tally);
  return {
    ...doc,
    lists: { before: { list: 1, table: 'main' } },
    ladder: { rungs, setAside: { records: aside, values: [], kept: [] } },
    tray: [...doc.tray, { id: 'other', tally: parsed, view: newView(parsed), note: '' }],
  };
}

export const ladder = fc.record({
  rungs: fc.array(condition, { maxLength: 1 }),
  aside: fc.uniqueArray(fc.integer({ min: 1, max: 240 }), { maxLength: 5 }),
});

import { answerAsk } from '$lib/core/ask/answerAsk';
import { readAsk } from '$lib/core/ask/badAsk';
import { finish } from '$lib/core/task/task';
import { dayNumber } from '$lib/core/table/calendar';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';

/** Four years of monthly records, made up: enough for every kind to come to all its tables. */
const SAMPLE: Table = {
  length: 96,
  columns: [
    textColumn(
      'Route',
      Array.from({ length: 96 }, (_, i) => ['Nessness', 'Skerry Bank'][i % 2]),
    ),
    textColumn(
      'Vessel',
      Array.from({ length: 96 }, (_, i) => ['Gannet', 'Little Auk', 'Fulmar'][i % 3]),
    ),
    scalarColumn(
      'Day',
      'date',
      Array.from({ length: 96 }, (_, i) => {
        const month = Math.floor(i / 2);
        return dayNumber(2022 + Math.floor(month / 12), (month % 12) + 1, 15);
      }),
    ),
    scalarColumn(
      'Fares',
      'number',
      Array.from({ length: 96 }, (_, i) => 100 + i + ((i * 37) % 23)),
    ),
    scalarColumn(
      'Boarded',
      'number',
      Array.from({ length: 96 }, (_, i) => 10 + ((i * 7) % 31)),
    ),
  ],
};

const SUM = { kind: 'sum', column: 'Fares' };
const LEDGER = { kind: 'ledger', groups: [{ column: 'Route' }], measures: [SUM] };
const by = [{ column: 'Route' }];
const series = { column: 'Day', period: 'month', measure: SUM, by };

/** An ask of each kind with what brings other tables and columns. */
const ASKED: readonly { readonly kind: string }[] = [
  { ...LEDGER, ...{ records: true } },
  {
    kind: 'crosstab',
    ...{ down: by, across: [{ column: 'Vessel' }], measures: [SUM], count: true, shares: ['row'] },
  },
  {
    kind: 'conditional',
    ...{
      rows: [
        { name: 'one', condition: { kind: 'expression', expression: 'Fares > 120' } },
        { name: 'two', condition: { kind: 'expression', expression: 'Boarded > 20' } },
      ],
      columns: [{ measure: SUM }],
    },
  },
  {
    kind: 'frequency',
    ...{ key: { column: 'Fares', bands: { by: 'number', count: 4 } }, measures: [SUM] },
  },
  { kind: 'spread', ...{ columns: ['Fares'], key: { column: 'Route' } } },
  { kind: 'percentile', ...{ column: 'Fares', percentiles: [50], ranksOf: [120] } },
  {
    kind: 'ranking',
    ...{ groups: [{ column: 'Vessel' }], by: SUM, change: { column: 'Day', period: 'year' } },
  },
  { kind: 'ranking', ...{ by: SUM, show: ['Vessel'] } },
  {
    kind: 'periods',
    ...{
      column: 'Day',
      levels: ['year', 'month'],
      measures: [SUM],
      by,
      against: ['previous', 'yearBefore'],
      running: true,
      toDate: true,
      moving: { k: 3 },
      index: {},
    },
  },
  { kind: 'growth', ...{ series } },
  { kind: 'forecast', ...{ series } },
  { kind: 'line', ...{ x: 'Boarded', y: 'Fares', by, at: [20] } },
  {
    kind: 'contributions',
    ...{
      measure: { kind: 'mean', column: 'Fares' },
      by,
      between: { of: 'periods', column: 'Day', period: 'year' },
    },
  },
  {
    kind: 'nested',
    ...{ inner: LEDGER, outer: { kind: 'ledger', measures: [{ kind: 'max', column: 'm1' }] } },
  },
  { kind: 'comparison', ...{ with: 'before', tally: LEDGER } },
  { kind: 'reconciliation', ...{ with: 'before', measure: { kind: 'sum', column: 'Fares' }, by } },
];

/** The tables of each kind with the keys of their columns, as a sample comes to them. */
export function resultTables(): string {
  const lines = ASKED.flatMap((spec) => {
    const { result } = finish(
      answerAsk(
        { name: 'Sample', table: SAMPLE, others: new Map([['before', SAMPLE]]) },
        readAsk({ tallies: [spec] }),
      ),
    );
    return result.tallies[0].tables.map(({ name, caption, labels, columns }) => {
      const keys = columns.map((c) => `\`${c.key}\``);
      // Of a cross-tab's columns those of one group tell the others.
      const figures = [...new Set(keys.slice(labels).map((k) => k.replace(/^`a\d+\./, '`aN.')))];
      return `| \`${spec.kind}\` | \`${name}\` | ${caption} | ${keys.slice(0, labels).join(', ') || '—'} | ${figures.join(', ')} |`;
    });
  });
  return [
    '| kind | table | what it holds | labels | figures |',
    '| --- | --- | --- | --- | --- |',
    ...new Set(lines),
  ].join('\n');
}

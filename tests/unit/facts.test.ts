import { describe, expect, it } from 'vitest';
import { finish } from '$lib/core/task/task';
import { wholeInput } from '$lib/core/tally/input/input';
import { computeTally, kindOf } from '$lib/core/tally/kind/kinds';
import { signedShare } from '$lib/core/table/format';
import { Tally } from '$lib/core/tally/spec/specs';
import { scalarColumn, textColumn } from '$lib/core/table/column';
import type { Table } from '$lib/core/table/table';
import { small } from '../support/smallList';

/** The small fact of a tally over the small list. @param before an older reading of it */
function factOf(spec: unknown, before: Table = small): string {
  const tally = Tally.parse(spec);
  const base = { ...wholeInput(small, 'Sums'), others: new Map([['before', before]]) };
  return kindOf(tally).fact(finish(computeTally(base, tally)));
}

const SUM = { kind: 'sum', column: 'Sum' };
const over = (value: number) => ({
  name: `over ${value}`,
  condition: { kind: 'leaf', column: 'Sum', test: { test: 'compare', op: 'gt', value } },
});
const conditional = (rows: unknown[]) => ({
  kind: 'conditional',
  rows,
  columns: [{ measure: SUM }],
});
const ranking = { kind: 'ranking', groups: [{ column: 'Depot' }], by: SUM };

describe('what a tally came to, in a few letters', () => {
  it.each([
    [
      'regions by years',
      '3 by 2',
      {
        kind: 'crosstab',
        down: [{ column: 'Region' }],
        across: [{ column: 'Day', period: 'year' }],
        measures: [SUM],
      },
    ],
    [
      'conditions apart',
      '2 rows',
      conditional([
        over(11),
        {
          ...over(0),
          condition: { ...over(0).condition, test: { test: 'compare', op: 'lt', value: 2 } },
        },
      ]),
    ],
    ['conditions that overlap', '2 in several', conditional([over(5), over(9)])],
    ['values', '4 values', { kind: 'frequency', key: { column: 'Depot' } }],
    ['periods', '2 periods', { kind: 'frequency', key: { column: 'Day', period: 'year' } }],
    ['groups', '3 groups', { kind: 'spread', columns: ['Sum'], key: { column: 'Region' } }],
    ['columns', '1 column', { kind: 'spread', columns: ['Sum'] }],
    ['a percentile', '50 % ≤ 8.0', { kind: 'percentile', column: 'Sum', percentiles: [50] }],
    [
      'ranks alone',
      '2 values',
      { kind: 'percentile', column: 'Sum', percentiles: [], ranksOf: [1, 9] },
    ],
    ['all places', '4 places', ranking],
    ['the first', 'first 2', { ...ranking, top: 2 }],
    ['the last', 'last 2', { ...ranking, bottom: 2 }],
    [
      'no change asked',
      '2 periods',
      { kind: 'periods', column: 'Day', levels: ['year'], measures: [SUM] },
    ],
    ['growth', '+10.0 %', { kind: 'growth', values: { first: 100, last: 121, intervals: 2 } }],
    ['no growth', '', { kind: 'growth', values: { first: -1, last: 121, intervals: 2 } }],
    ['a ledger', '', { kind: 'ledger', groups: [{ column: 'Region' }], measures: [SUM] }],
    [
      'best of each',
      '3 results',
      {
        kind: 'nested',
        inner: {
          kind: 'ledger',
          groups: [{ column: 'Region' }, { column: 'Depot' }],
          measures: [SUM],
        },
        outer: {
          kind: 'ledger',
          groups: [{ column: 'Region' }],
          measures: [{ kind: 'max', column: 'm1' }],
        },
      },
    ],
  ])('%s: %s', (_, want, spec) => {
    expect(factOf(spec)).toBe(want);
  });

  const contributions = (between: object) => ({
    kind: 'contributions',
    measure: SUM,
    by: [{ column: 'Depot' }],
    between,
  });

  it('the change that groups gave parts of, none where it came from nothing', () => {
    // North has 27, South 16.
    const regions = { of: 'groups', key: { column: 'Region' }, from: 'South', to: 'North' };
    expect(factOf(contributions(regions))).toBe('+68.8 %');
    expect(factOf(contributions({ ...regions, from: 'North', to: 'South' }))).toBe('−40.7 %');
    const changed = (sums: (number | null)[]): Table => ({
      ...small,
      columns: small.columns.map((c) => (c.id === 'Sum' ? scalarColumn('Sum', 'number', sums) : c)),
    });
    const readings = contributions({ of: 'readings', with: 'before' });
    expect(factOf(readings, changed([0, 0, 0, 0, 0, 0]))).toBe('');
    expect(factOf(readings, changed([10, 5, 12, 7, 9, 45]))).toBe('−50.0 %');
  });

  it('how many figures moved, whatever they are of', () => {
    const compared = (measure: object, more: object = {}) => ({
      kind: 'comparison',
      with: 'before',
      match: ['Depot', 'Day'],
      tally: { kind: 'ledger', groups: [{ column: 'Region' }], measures: [measure] },
      ...more,
    });
    const newer: Table = {
      ...small,
      columns: small.columns.map((c) =>
        c.id === 'Depot'
          ? textColumn('Depot', ['A', 'A', 'B', 'C', 'D', 'E'])
          : c.id === 'Sum'
            ? scalarColumn('Sum', 'number', [10, 5, 12, 7, 9, 4])
            : c,
      ),
    };
    // The group without a region and the whole.
    expect(factOf(compared(SUM), newer)).toBe('2 moved');
    expect(factOf(compared(SUM))).toBe('nothing moved');
    // Unmoved figures are listed where that is asked for, and are not counted; nor are texts.
    expect(factOf(compared(SUM, { unmoved: true }), newer)).toBe('2 moved');
    const first = { kind: 'first', column: 'Depot' };
    expect(factOf(compared(first, { unmoved: true }))).toBe('nothing moved');
    expect(factOf(compared(first, { unmoved: true }), newer)).toBe('1 moved');
  });

  it('how close points lie to their line, and nothing without one', () => {
    const line = (y: string) => ({ kind: 'line', x: 'Sum', y: `expression: ${y}` });
    expect(factOf(line('Sum * 3 - 1'))).toBe('r² 1.00');
    const x = [10, 5, 12, 7, 9, 1];
    const y = x.map((v) => (v > 8 ? v : v * v));
    const mean = (of: number[]): number => of.reduce((sum, v) => sum + v, 0) / of.length;
    const about = (p: number[], q: number[]): number =>
      mean(p.map((v, k) => (v - mean(p)) * (q[k] - mean(q))));
    const r2 = about(x, y) ** 2 / (about(x, x) * about(y, y));
    expect(factOf(line('CASE WHEN Sum > 8 THEN Sum ELSE Sum * Sum END'))).toBe(
      `r² ${r2.toFixed(2)}`,
    );
    expect(factOf(line('Sum * 0'))).toBe('');
  });

  it('how far a forecast’s bounds reach, or how far it goes without any', () => {
    const forecast = {
      kind: 'forecast',
      series: { column: 'Day', period: 'month', measure: SUM },
      method: 'mean',
      horizon: 3,
      gaps: 'zero',
      incompleteLast: 'keep',
    };
    // Months from December to May: 7, 10, 5, 0, 12 and 10; mean 44/6, errors from it.
    const sums = [7, 10, 5, 0, 12, 10];
    const mean = sums.reduce((a, b) => a + b) / 6;
    const sd = Math.sqrt(sums.reduce((s, v) => s + (v - mean) ** 2, 0) / 5) * Math.sqrt(1 + 1 / 6);
    const share = Math.round((100 * 1.281552 * sd) / mean);
    expect(factOf(forecast)).toBe(`±${share} %`);
    expect(factOf({ ...forecast, levels: [] })).toBe('3 ahead');
  });

  it('shares say which way they go', () => {
    expect([0.132, -0.004, 0.00001, -0.00001, 0].map((share) => signedShare(share))).toEqual([
      '+13.2 %',
      '−0.4 %',
      '0.0 %',
      '0.0 %',
      '0.0 %',
    ]);
  });
});

import { describe, expect, it } from 'vitest';
import { finish } from '$lib/core/steps/steps';
import { wholeBase } from '$lib/core/tally/base';
import { computeTally, kindOf } from '$lib/core/tally/kinds';
import { signed } from '$lib/core/tally/signed';
import { Tally } from '$lib/core/tally/specs';
import { small } from '../support/smallList';

/** The small fact of a tally over the small list. */
function factOf(spec: unknown): string {
  const tally = Tally.parse(spec);
  return kindOf(tally).fact(finish(computeTally(wholeBase(small, 'Sums'), tally)));
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
    ['a percentile', '50 % ≤ 8', { kind: 'percentile', column: 'Sum', percentiles: [50] }],
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

  it('shares say which way they go', () => {
    expect([0.132, -0.004, 0.00001, -0.00001, 0].map(signed)).toEqual([
      '+13.2 %',
      '−0.4 %',
      '0.0 %',
      '0.0 %',
      '0.0 %',
    ]);
  });
});

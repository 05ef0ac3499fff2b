import { BadCondition } from '../errors';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { finish } from '../task/task';
import { count, fullBitset, members } from '../table/bitset';
import { scalarColumn, textColumn } from '../table/column';
import { dayNumber } from '../table/calendar';
import type { Table } from '../table/table';
import { isComplete, newLeaf, TEST_CHOICES } from './choices';
import { Condition, Ladder, type Leaf, type Test } from './condition';
import { describeCondition } from './describe';
import { evaluate } from './evaluate';
import { nextDown, nextUp } from './interval';
import { applyLadder } from './ladder';
import { textTest } from './textTest';

const day = (text: string): number =>
  dayNumber(+text.slice(0, 4), +text.slice(5, 7), +text.slice(8));

const table: Table = {
  length: 8,
  columns: [
    textColumn('route', ['Holm', 'Ness', null, 'holm', 'Café', 'Cafe', 'Pier 9', 'Holm']),
    scalarColumn('delay', 'number', [0, 10, null, 25, 10, 3, null, 60], {
      unread: new Map([[6, '14 min']]),
    }),
    scalarColumn(
      'day',
      'date',
      [
        '2025-01-06',
        '2025-02-28',
        '2025-07-12',
        '2025-07-13',
        '2025-12-31',
        '2026-01-01',
        '2024-02-29',
        null,
      ].map((d) => (d ? day(d) : null)),
    ),
    scalarColumn('yes', 'yesno', [1, 0, 1, null, 0, 1, 1, 0]),
  ],
};

const leaf = (column: string, test: Test, not = false): Leaf => ({
  kind: 'leaf',
  column,
  not,
  test,
});
const pass = (condition: Condition, above = fullBitset(8)): number[] => [
  ...members(finish(evaluate(table, condition, above)).yes),
];

describe('conditions on text', () => {
  it.each([
    [{ test: 'is', values: ['HOLM'], exact: false }, [0, 3, 7]],
    [{ test: 'is', values: ['holm'], exact: true }, [3]],
    [{ test: 'is', values: ['cafe', 'Ness'], exact: false }, [1, 4, 5]],
    [{ test: 'contains', text: 'OL', exact: false }, [0, 3, 7]],
    [{ test: 'startsWith', text: 'pier', exact: false }, [6]],
    [{ test: 'endsWith', text: 'é', exact: true }, [4]],
    [{ test: 'pattern', text: '?olm', exact: false }, [0, 3, 7]],
    [{ test: 'pattern', text: 'p*9', exact: false }, [6]],
    [{ test: 'regex', text: '^(holm|ness)$', exact: false }, [0, 1, 3, 7]],
    [{ test: 'blank' }, [2]],
  ] as [Test, number[]][])('%j', (test, expected) => {
    expect(pass(leaf('route', test))).toEqual(expected);
  });

  it('a backslash makes a mark of a pattern literal', () => {
    const fits = textTest({ test: 'pattern', text: 'a\\*b?', exact: true });
    expect(fits('a*bx')).toBe(true);
    expect(fits('aXbx')).toBe(false);
  });

  it('refuse a broken regular expression, and a question that does not suit', () => {
    expect(() => pass(leaf('route', { test: 'regex', text: '(', exact: false }))).toThrow(
      BadCondition,
    );
    expect(() => pass(leaf('route', { test: 'mean', side: 'above' }))).toThrow(BadCondition);
    expect(() => pass(leaf('delay', { test: 'contains', text: '1', exact: false }))).toThrow(
      BadCondition,
    );
    expect(() => pass(leaf('delay', { test: 'season', of: 'month', values: [1] }))).toThrow(
      'not a date',
    );
  });
});

describe('conditions on numbers', () => {
  it.each([
    [{ test: 'compare', op: 'eq', value: 10 }, [1, 4]],
    [{ test: 'compare', op: 'ne', value: 10 }, [0, 3, 5, 7]],
    [{ test: 'compare', op: 'lt', value: 10 }, [0, 5]],
    [{ test: 'compare', op: 'le', value: 10 }, [0, 1, 4, 5]],
    [{ test: 'compare', op: 'gt', value: 10 }, [3, 7]],
    [{ test: 'compare', op: 'ge', value: 10 }, [1, 3, 4, 7]],
    [{ test: 'between', from: 3, to: 25, fromIn: true, toIn: false }, [1, 4, 5]],
    [{ test: 'between', from: 3, to: 25, fromIn: false, toIn: true }, [1, 3, 4]],
    // 10 stands twice at the edge of the three highest: both stay.
    [{ test: 'extreme', side: 'highest', k: 3, of: 'records' }, [1, 3, 4, 7]],
    [{ test: 'extreme', side: 'lowest', k: 1, of: 'records' }, [0]],
    [{ test: 'extreme', side: 'highest', k: 20, of: 'percent' }, [3, 7]],
    // Mean of 0 10 25 10 3 60 is 18.
    [{ test: 'mean', side: 'above' }, [3, 7]],
    [{ test: 'deviations', k: 1.5 }, [7]],
    [{ test: 'outlying', k: 1.5 }, [7]],
    [{ test: 'blank' }, [2]],
    [{ test: 'unread' }, [6]],
  ] as [Test, number[]][])('%j', (test, expected) => {
    expect(pass(leaf('delay', test))).toEqual(expected);
  });

  it('look at what the rungs above kept', () => {
    const above = fullBitset(8);
    above[0] &= ~(1 << 7);
    expect(
      pass(leaf('delay', { test: 'extreme', side: 'highest', k: 1, of: 'records' }), above),
    ).toEqual([3, 7]);
    const ladder = Ladder.parse({
      rungs: [
        { id: 'a', condition: leaf('delay', { test: 'compare', op: 'lt', value: 60 }) },
        {
          id: 'b',
          condition: leaf('delay', { test: 'extreme', side: 'highest', k: 1, of: 'records' }),
        },
      ],
    });
    expect([...members(finish(applyLadder(table, ladder)).counted)]).toEqual([3]);
  });

  it('step to the neighbouring doubles', () => {
    fc.assert(
      fc.property(fc.double({ noNaN: true, noDefaultInfinity: true }), (x) => {
        expect(nextUp(x)).toBeGreaterThan(x);
        expect(nextDown(nextUp(x))).toBe(x === 0 ? 0 : x);
      }),
    );
  });
});

describe('conditions on dates', () => {
  it.each([
    [{ test: 'compare', op: 'eq', value: '2025-07-12' }, [2]],
    [{ test: 'compare', op: 'lt', value: '2025-01-06' }, [6]],
    [{ test: 'between', from: '2025-02-28', to: '2025-07-12', fromIn: true, toIn: true }, [1, 2]],
    [{ test: 'period', period: 'year', days: ['2025-06-01'] }, [0, 1, 2, 3, 4]],
    [{ test: 'period', period: 'quarter', days: ['2025-09-30'] }, [2, 3]],
    [{ test: 'period', period: 'month', days: ['2024-02-01', '2025-02-01'] }, [1, 6]],
    [{ test: 'season', of: 'month', values: [1, 2] }, [0, 1, 5, 6]],
    [{ test: 'season', of: 'weekday', values: [6, 7] }, [2, 3]],
    [{ test: 'season', of: 'quarter', values: [4] }, [4]],
    [{ test: 'last', k: 1, period: 'month' }, [5]],
    [{ test: 'last', k: 2, period: 'month' }, [4, 5]],
  ] as [Test, number[]][])('%j', (test, expected) => {
    expect(pass(leaf('day', test))).toEqual(expected);
  });

  it('a bare day means the whole of it where there are times', () => {
    const noon = day('2025-07-12') * 86_400_000 + 43_200_000;
    const timed: Table = {
      length: 2,
      columns: [scalarColumn('when', 'datetime', [noon, noon + 86_400_000])],
    };
    const on = (op: 'eq' | 'le' | 'gt'): number =>
      count(
        finish(
          evaluate(
            timed,
            leaf('when', { test: 'compare', op, value: '2025-07-12' }),
            fullBitset(2),
          ),
        ).yes,
      );
    expect([on('eq'), on('le'), on('gt')]).toEqual([1, 1, 1]);
  });

  it.each([
    ['2024', 'eq', [6]],
    ['2024', 'le', [6]],
    ['2024', 'gt', [0, 1, 2, 3, 4, 5]],
    ['2025-02', 'eq', [1]],
    ['2025-02', 'le', [0, 1, 6]],
    ['2025-02', 'lt', [0, 6]],
    ['2025-Q3', 'eq', [2, 3]],
    ['2025-Q3', 'ge', [2, 3, 4, 5]],
    ['2025-Q3', 'ne', [0, 1, 4, 5, 6]],
    ['2025-W28', 'eq', [2, 3]],
    ['July 2025', 'eq', [2, 3]],
  ] as [string, 'eq', number[]][])(
    'a bare period means the whole of it: %s, %s',
    (value, op, want) => {
      expect(pass(leaf('day', { test: 'compare', op, value }))).toEqual(want);
    },
  );

  it('a period left out of what is between is left out whole', () => {
    const between = (fromIn: boolean, toIn: boolean): number[] =>
      pass(leaf('day', { test: 'between', from: '2024', to: '2025-Q3', fromIn, toIn }));
    expect(between(true, true)).toEqual([0, 1, 2, 3, 6]);
    expect(between(false, true)).toEqual([0, 1, 2, 3]);
    expect(between(false, false)).toEqual([0, 1]);
  });

  it('are never numbers, and never guessed', () => {
    const ask = (value: number | string): (() => number[]) => {
      return () => pass(leaf('day', { test: 'compare', op: 'ge', value }));
    };
    expect(ask(2024)).toThrow(
      'day holds dates, and 2024 is a number. Write a date as text: “2024”.',
    );
    expect(ask(20089)).toThrow('Write a date as text');
    for (const text of ['03/04/2024', '24-01-15', '3.4.24'])
      expect(ask(text)).toThrow(`“${text}” can be read two ways`);
    expect(ask('2024-W60')).toThrow('cannot be read as a value of day');
    expect(() =>
      pass(leaf('day', { test: 'period', period: 'month', days: ['03/04/2024'] })),
    ).toThrow('read one way only');
  });

  it('say which text is no date', () => {
    expect(() => pass(leaf('day', { test: 'compare', op: 'eq', value: 'soon' }))).toThrow('“soon”');
  });
});

describe('three-valued logic', () => {
  it('a blank is neither true nor false, negated or not', () => {
    const at = leaf('delay', { test: 'compare', op: 'ge', value: 10 });
    expect(pass(at)).toEqual([1, 3, 4, 7]);
    expect(pass({ ...at, not: true })).toEqual([0, 5]);
    expect(pass({ kind: 'any', not: false, parts: [at, { ...at, not: true }] })).toEqual([
      0, 1, 3, 4, 5, 7,
    ]);
    expect(pass({ ...leaf('delay', { test: 'blank' }), not: true })).toEqual([0, 1, 3, 4, 5, 6, 7]);
  });

  it('joins as SQL does, to any depth', () => {
    const truth = fc.constantFrom<1 | 0 | null>(1, 0, null);
    const kleene = {
      all: (a: number | null, b: number | null) =>
        a === 0 || b === 0 ? 0 : a === null || b === null ? null : 1,
      any: (a: number | null, b: number | null) =>
        a === 1 || b === 1 ? 1 : a === null || b === null ? null : 0,
    };
    fc.assert(
      fc.property(
        truth,
        truth,
        truth,
        fc.constantFrom('all', 'any'),
        fc.boolean(),
        (a, b, c, kind, not) => {
          const t: Table = {
            length: 1,
            columns: [a, b, c].map((v, k) => scalarColumn(`c${k}`, 'number', [v])),
          };
          const is = (k: number): Condition =>
            leaf(`c${k}`, { test: 'compare', op: 'eq', value: 1 });
          const other = kind === 'all' ? 'any' : 'all';
          const condition: Condition = {
            kind: kind as 'all' | 'any',
            not: false,
            parts: [is(0), { kind: other, not, parts: [is(1), is(2)] }],
          };
          const inner = kleene[other](b, c);
          const turned = inner === null ? null : not ? 1 - inner : inner;
          const expected = kleene[kind as 'all' | 'any'](a, turned);
          const { yes, no } = finish(evaluate(t, condition, fullBitset(1)));
          expect([count(yes), count(no)]).toEqual([expected === 1 ? 1 : 0, expected === 0 ? 1 : 0]);
        },
      ),
    );
  });
});

describe('the ladder', () => {
  const delay10 = leaf('delay', { test: 'compare', op: 'ge', value: 10 });

  it('reports kept, removed, blank and unread at every rung', () => {
    const result = finish(
      applyLadder(table, Ladder.parse({ rungs: [{ id: 'a', condition: delay10 }] })),
    );
    expect(result.rungs[0]).toMatchObject({ kept: 4, removed: 4, blank: 1, unread: 1 });
  });

  it('leaves out a rung that is off, and sets records aside by number and by value', () => {
    const result = finish(
      applyLadder(
        table,
        Ladder.parse({
          rungs: [{ id: 'a', on: false, condition: delay10 }],
          setAside: {
            records: [2, 99],
            values: [
              { column: 'route', value: 'Holm' },
              { column: 'delay', value: null },
            ],
            kept: [8],
          },
        }),
      ),
    );
    expect([...members(result.setAside)]).toEqual([0, 1, 2]);
    expect(count(result.narrowed)).toBe(8);
    expect([...members(result.counted)]).toEqual([3, 4, 5, 6, 7]);
  });

  it('counts the same whatever the order of rungs that do not look at each other', () => {
    const rungs = [
      delay10,
      leaf('yes', { test: 'is', values: ['no'], exact: true }),
      leaf('route', { test: 'blank' }, true),
    ].map((condition, k) => ({ id: String(k), on: true, condition }));
    const counted = (order: number[]): number[] => [
      ...members(
        finish(applyLadder(table, Ladder.parse({ rungs: order.map((k) => rungs[k]) }))).counted,
      ),
    ];
    expect(counted([0, 1, 2])).toEqual(counted([2, 1, 0]));
    expect(counted([1, 0, 2])).toEqual([1, 4, 7]);
  });
});

describe('conditions in words', () => {
  const names = new Map([
    ['delay', 'Delay'],
    ['route', 'Route'],
  ]);
  it.each([
    [leaf('delay', { test: 'compare', op: 'ge', value: 1200 }), 'Delay is at least 1,200'],
    [leaf('delay', { test: 'compare', op: 'ge', value: 10 }, true), 'Delay is not at least 10'],
    [
      leaf('route', { test: 'is', values: ['Holm', 'Ness', 'Skerry'], exact: true }),
      'Route is Holm, Ness or Skerry',
    ],
    [leaf('route', { test: 'contains', text: 'x', exact: false }, true), 'Route: not contains “x”'],
    [
      leaf('delay', {
        test: 'between',
        from: '2025-07-12',
        to: '2025-07-13',
        fromIn: true,
        toIn: false,
      }),
      'Delay is between Sat 12 Jul 2025 and Sun 13 Jul 2025 (with the first, without the last)',
    ],
    [leaf('delay', { test: 'compare', op: 'eq', value: '2025-Q2' }), 'Delay is in 2025-Q2'],
    [leaf('delay', { test: 'compare', op: 'le', value: '2025' }), 'Delay is up to 2025'],
    [
      leaf('delay', { test: 'compare', op: 'lt', value: '2025-07-12' }, true),
      'Delay is not before Sat 12 Jul 2025',
    ],
    [leaf('delay', { test: 'compare', op: 'ge', value: '08:30' }), 'Delay is from 08:30'],
    [
      leaf('delay', { test: 'last', k: 1, period: 'month' }),
      'Delay is in the last month of the data',
    ],
    [
      leaf('delay', { test: 'last', k: 2, period: 'half' }),
      'Delay is in the last 2 half-years of the data',
    ],
  ] as const)('%#', (condition, words) => {
    expect(describeCondition(condition, names)).toBe(words);
  });

  it('every choice makes a valid test, incomplete until it is filled in', () => {
    for (const choice of TEST_CHOICES) {
      const test = choice.make();
      expect(choice.is(test)).toBe(true);
      expect(Condition.safeParse(leaf('x', test)).success).toBe(true);
    }
    expect(isComplete(newLeaf('route', 'text'))).toBe(false);
    expect(isComplete(leaf('route', { test: 'is', values: ['a'], exact: true }))).toBe(true);
  });
});

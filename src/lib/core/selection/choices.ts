import type { ColumnType } from '../table/column';
import type { Condition, Leaf, Test } from './condition';

/** A kind of question about a column, as the analyst picks it. */
export interface TestChoice {
  readonly key: string;
  readonly label: string;
  readonly types: readonly ColumnType[];
  /** A test to start from. */
  readonly make: () => Test;
  /** Whether a test is of this kind. */
  readonly is: (test: Test) => boolean;
}

const TEXT: readonly ColumnType[] = ['text'];
const NUMBER: readonly ColumnType[] = ['number'];
const DATED: readonly ColumnType[] = ['date', 'datetime'];
const TIMED: readonly ColumnType[] = ['date', 'datetime', 'time'];
const ORDERED: readonly ColumnType[] = ['number', 'date', 'datetime', 'time'];
const ANY: readonly ColumnType[] = ['text', 'number', 'date', 'datetime', 'time', 'yesno'];

const compare = (
  op: Extract<Test, { test: 'compare' }>['op'],
  label: string,
  types: readonly ColumnType[],
): TestChoice => ({
  key: `compare-${op}-${types.length}`,
  label,
  types,
  make: () => ({ test: 'compare', op, value: types === NUMBER ? 0 : '' }),
  is: (t) => t.test === 'compare' && t.op === op,
});

const worded = (
  test: 'contains' | 'startsWith' | 'endsWith' | 'pattern' | 'regex',
  label: string,
): TestChoice => ({
  key: test,
  label,
  types: TEXT,
  make: () => ({ test, text: '', exact: false }),
  is: (t) => t.test === test,
});

/** Every kind of test, in the order offered. */
export const TEST_CHOICES: readonly TestChoice[] = [
  {
    key: 'is',
    label: 'is one of',
    types: ['text', 'yesno'],
    make: () => ({ test: 'is', values: [], exact: true }),
    is: (t) => t.test === 'is',
  },
  worded('contains', 'contains'),
  worded('startsWith', 'starts with'),
  worded('endsWith', 'ends with'),
  worded('pattern', 'matches a pattern (* and ?)'),
  worded('regex', 'matches a regular expression'),
  compare('ge', 'is at least', NUMBER),
  compare('gt', 'is over', NUMBER),
  compare('le', 'is at most', NUMBER),
  compare('lt', 'is under', NUMBER),
  compare('eq', 'is', NUMBER),
  compare('ne', 'is not', NUMBER),
  compare('eq', 'is on', TIMED),
  compare('lt', 'is before', TIMED),
  compare('gt', 'is after', TIMED),
  compare('le', 'is up to', TIMED),
  compare('ge', 'is from', TIMED),
  {
    key: 'between',
    label: 'is between',
    types: ORDERED,
    make: () => ({ test: 'between', from: '', to: '', fromIn: true, toIn: true }),
    is: (t) => t.test === 'between',
  },
  {
    key: 'period',
    label: 'is in one year, quarter, month or week',
    types: DATED,
    make: () => ({ test: 'period', period: 'year', days: [''] }),
    is: (t) => t.test === 'period',
  },
  {
    key: 'season',
    label: 'is in months or weekdays of any year',
    types: DATED,
    make: () => ({ test: 'season', of: 'month', values: [6, 7, 8] }),
    is: (t) => t.test === 'season',
  },
  {
    key: 'last',
    label: 'is in the last periods of the data',
    types: DATED,
    make: () => ({ test: 'last', k: 12, period: 'month' }),
    is: (t) => t.test === 'last',
  },
  {
    key: 'extreme',
    label: 'is among the highest or lowest',
    types: ORDERED,
    make: () => ({ test: 'extreme', side: 'highest', k: 10, of: 'records' }),
    is: (t) => t.test === 'extreme',
  },
  {
    key: 'mean',
    label: 'is above or below the mean',
    types: NUMBER,
    make: () => ({ test: 'mean', side: 'above' }),
    is: (t) => t.test === 'mean',
  },
  {
    key: 'deviations',
    label: 'is far from the mean',
    types: NUMBER,
    make: () => ({ test: 'deviations', k: 2 }),
    is: (t) => t.test === 'deviations',
  },
  {
    key: 'outlying',
    label: 'lies outside 1.5 IQR',
    types: NUMBER,
    make: () => ({ test: 'outlying', k: 1.5 }),
    is: (t) => t.test === 'outlying',
  },
  {
    key: 'listed',
    label: 'is one of the values of another list',
    types: ['text', 'number', 'date'],
    make: () => ({ test: 'listed', list: '', column: '', exact: false }),
    is: (t) => t.test === 'listed',
  },
  {
    key: 'blank',
    label: 'is blank',
    types: ANY,
    make: () => ({ test: 'blank' }),
    is: (t) => t.test === 'blank',
  },
  {
    key: 'unread',
    label: 'is unread',
    types: ['number', 'date', 'datetime', 'time', 'yesno'],
    make: () => ({ test: 'unread' }),
    is: (t) => t.test === 'unread',
  },
];

export const choicesFor = (type: string): TestChoice[] =>
  TEST_CHOICES.filter((c) => c.types.some((t) => t === type));

/** A condition on a column to start from. */
export const newLeaf = (column: string, type: string): Leaf => ({
  kind: 'leaf',
  column,
  not: false,
  test: (choicesFor(type)[0] ?? TEST_CHOICES[0]).make(),
});

/** Whether a condition can be tried: nothing in it is still empty. */
export function isComplete(condition: Condition): boolean {
  if (condition.kind === 'expression') return condition.expression.trim() !== '';
  if (condition.kind === 'records') return true;
  if (condition.kind !== 'leaf') return condition.parts.every(isComplete);
  const { test } = condition;
  const filled = (p: number | string | null | undefined): boolean =>
    p !== null && p !== undefined && p !== '' && !Number.isNaN(p);
  switch (test.test) {
    case 'is':
      return test.values.length > 0;
    case 'contains':
    case 'startsWith':
    case 'endsWith':
    case 'pattern':
    case 'regex':
      return test.text !== '';
    case 'compare':
      return filled(test.value);
    case 'between':
      return filled(test.from) && filled(test.to);
    case 'period':
      return test.days.every(filled);
    case 'season':
      return test.values.length > 0;
    case 'listed':
      return test.list !== '' && test.column !== '';
    case 'extreme':
    case 'deviations':
    case 'outlying':
    case 'last':
      return filled(test.k) && test.k > 0;
    default:
      return true;
  }
}

import { MONTHS, plainDate, WEEKDAYS } from '../table/calendar';
import { counted, givenNumber, showCount, listed } from '../table/format';
import { periodLabel, periodOf } from '../table/period';
import { noDateFacts, readDate } from '../read/dates';
import { expressionIn } from '../expression/reference';
import type { Comparison, Condition, Test } from './condition';

const OP: Record<Comparison, string> = {
  eq: 'is',
  ne: 'is not',
  lt: 'is under',
  le: 'is at most',
  gt: 'is over',
  ge: 'is at least',
};

/** Dates read as people write them; other points stay as they are. */
function pointWords(point: number | string): string {
  if (typeof point === 'number') return givenNumber(point);
  if (!/^\d{4}-\d{2}-\d{2}$/.test(point)) return point;
  const day = readDate(point, 'ymd', noDateFacts());
  return Number.isNaN(day) ? point : plainDate(day);
}

/** `a`, `a or b`, `a, b or c`. */
export const orList = (items: readonly string[], word = 'or'): string => listed(items, word);

/** The same of dates and times, which are written as text. */
const MOMENT_OP: typeof OP = {
  ...OP,
  eq: 'is on',
  ne: 'is not on',
  lt: 'is before',
  le: 'is up to',
  gt: 'is after',
  ge: 'is from',
};

const isMoment = (point: number | string): boolean =>
  typeof point === 'string' && /^\d{4}(-|$)|^\d{1,2}:/.test(point);

/** A year, month, quarter or week as text: only dates are compared with one. */
const isPeriod = (point: number | string): boolean =>
  typeof point === 'string' && /^\d{4}(-(\d{2}|Q[1-4]|W\d{2}))?$/.test(point);

function testWords(test: Test): string {
  switch (test.test) {
    case 'is':
      return `is ${orList(fewOf(lookingDifferent(test.values)))}`;
    case 'contains':
      return `contains “${test.text}”`;
    case 'startsWith':
      return `starts with “${test.text}”`;
    case 'endsWith':
      return `ends with “${test.text}”`;
    case 'pattern':
      return `matches the pattern ${test.text}`;
    case 'regex':
      return `matches the regular expression ${test.text}`;
    case 'compare':
      if (test.op === 'eq' && isPeriod(test.value)) return `is in ${test.value}`;
      return `${isMoment(test.value) ? MOMENT_OP[test.op] : OP[test.op]} ${pointWords(test.value)}`;
    case 'between': {
      const edge =
        test.fromIn && test.toIn
          ? ''
          : ` (${test.fromIn ? 'with' : 'without'} the first, ${test.toIn ? 'with' : 'without'} the last)`;
      return `is between ${pointWords(test.from)} and ${pointWords(test.to)}${edge}`;
    }
    case 'extreme':
      return test.of === 'percent'
        ? `is in the ${test.side} ${test.k} %`
        : `is among the ${test.side} ${test.k}`;
    case 'mean':
      return `is ${test.side} the mean`;
    case 'deviations':
      return `is over ${counted(test.k, 'standard deviation')} from the mean`;
    case 'outlying':
      return `lies outside ${test.k} IQR of the quartiles`;
    case 'period':
      return `is in ${orList(test.days.map((d) => periodLabel(periodOf(readDate(d, 'ymd', noDateFacts()), test.period), test.period)))}`;
    case 'season':
      return test.of === 'month'
        ? `is in ${orList(test.values.map((m) => MONTHS[m - 1]))}`
        : test.of === 'weekday'
          ? `is on a ${orList(test.values.map((d) => WEEKDAYS[(d - 1) % 7]))}`
          : `is in quarter ${orList(test.values.map(String))}`;
    case 'last':
      return `is in the last ${test.k === 1 ? '' : `${test.k} `}${test.k === 1 ? test.period : plural(test.period)} of the data`;
    case 'blank':
      return 'is blank';
    case 'unread':
      return 'is unread';
    case 'listed':
      return `is one of the values of ${test.column} in ${test.list}`;
  }
}

const plural = (period: string): string => (period === 'half' ? 'half-years' : `${period}s`);

/** A condition in plain words: `Delay is at least 10 and not (Route is Nessness)`. */
export function describeCondition(
  condition: Condition,
  names: ReadonlyMap<string, string>,
): string {
  if (condition.kind === 'leaf') {
    const words = testWords(condition.test);
    const name = expressionIn(condition.column) ?? names.get(condition.column) ?? condition.column;
    if (!condition.not) return `${name} ${words}`;
    return words.startsWith('is ') ? `${name} is not ${words.slice(3)}` : `${name}: not ${words}`;
  }
  if (condition.kind === 'expression')
    return condition.not ? `not (${condition.expression})` : condition.expression;
  if (condition.kind === 'records') return recordWords(condition.records, condition.not);
  const inner = condition.parts.map((part) => {
    const text = describeCondition(part, names);
    return part.kind === 'leaf' || part.not ? text : `(${text})`;
  });
  const text = inner.join(condition.kind === 'all' ? ' and ' : ' or ');
  if (condition.kind === 'none') return condition.not ? text : `none of: ${text} (blanks stay)`;
  return condition.not ? `not (${text})` : text;
}

/** `record 7`, `none of the 12 records named by number` */
function recordWords(records: readonly number[], not: boolean): string {
  if (records.length > 3)
    return `${not ? 'not one' : 'one'} of ${counted(records.length, 'record')} by number`;
  const numbers = orList(records.map(showCount));
  return `${not ? 'not ' : ''}record ${numbers}`;
}

/** Of those removed, how many had no value to judge: `516 blank, 22 unread`; '' for none. */
export function missingWords({ blank, unread }: { blank: number; unread: number }): string {
  return [blank && `${showCount(blank)} blank`, unread && `${showCount(unread)} unread`]
    .filter(Boolean)
    .join(', ');
}

/** Spellings that differ in blanks alone look the same: they are said once. */
const lookingDifferent = (values: readonly string[]): string[] => [
  ...new Set(values.map((value) => value.trim().replace(/\s+/g, ' '))),
];

/** Of many values the first, and how many more there are. */
const fewOf = (values: readonly string[]): readonly string[] =>
  values.length > 4 ? [...values.slice(0, 3), `${values.length - 3} more`] : values;

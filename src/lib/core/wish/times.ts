import type { Span } from '../selection/point';
import { daysCovered } from '../selection/point';
import { MONTHS, WEEKDAYS } from '../table/calendar';
import {
  CALENDAR_PERIODS,
  periodEnd,
  periodOf,
  periodStart,
  type CalendarPeriod,
} from '../table/period';
import { relativeSpan } from './relativeSpan';
import type { Token } from './tokens';

/** What words say of time: days from one to another, or months, quarters and weekdays of any year. */
export type Time =
  | { readonly span: Span; readonly period: CalendarPeriod | null }
  | { readonly of: 'month' | 'quarter' | 'weekday'; readonly values: readonly number[] };

/** Longest time in words: `from the first quarter of 2024 to the third`. */
const MOST_WORDS = 7;

const ORDINALS: readonly (readonly [RegExp, number])[] = [
  [/^(?:first|1st)$/, 1],
  [/^(?:second|2nd)$/, 2],
  [/^(?:third|3rd)$/, 3],
  [/^(?:fourth|4th)$/, 4],
];

/**
 * The longest time that words from a place on name, and how many of them it takes: `2025`, `june to august 2025`,
 * `q1 2025`, `the first quarter of 2025`, `last month` by the list's last day; `march`, `mondays`, `q2` of any year.
 * @param last the last day the list has; null where it has none: nothing is told from it
 */
export function timeAt(
  tokens: readonly Token[],
  at: number,
  last: number | null,
): { readonly time: Time; readonly length: number } | null {
  const from = tokens[at]?.word === 'the' ? at + 1 : at;
  for (let to = Math.min(tokens.length, from + MOST_WORDS); to > from; to--) {
    const said = tokens.slice(from, to);
    if (said.slice(1).some(({ afterComma }) => afterComma)) continue;
    const words = said.map(({ word }) => word);
    const span =
      (last === null ? null : relativeSpan(words, last)) ??
      quarterOf(words) ??
      spanNamed(words.join(' '));
    const time: Time | null = span ? { span, period: wholePeriod(span) } : seasonOf(words);
    if (time) return { time, length: to - at };
  }
  return null;
}

/** `2025`, `June 2025`, `june to august 2025`, `2025-06 to 2025-08`: from the first day to the last. */
export function spanNamed(words: string): Span | null {
  const [from, to, ...more] = words.split(/\s+(?:to|until|and)\s+|\s*[–—]\s*/i);
  if (more.length > 0) return null;
  const last = daysCovered((to ?? from).trim());
  if (to === undefined || !last) return isNumberOnly(from) ? null : last;
  const [year] = /\d{4}$/.exec(to.trim()) ?? [];
  const first = daysCovered(from.trim()) ?? (year ? daysCovered(`${from.trim()} ${year}`) : null);
  return first && first.from <= last.to ? { from: first.from, to: last.to } : null;
}

/** A number that is no year says how many, or is an edge. */
const isNumberOnly = (text: string): boolean =>
  /^\d+$/.test(text.trim()) && !/^(?:19|20)\d\d$/.test(text.trim());

/** `q1 2025`, `first quarter of 2025`, `quarter 1 2025`. */
function quarterOf(words: readonly string[]): Span | null {
  const plain = words.filter((word) => word !== 'of' && word !== 'in');
  if (plain.length < words.length - 1 || !/^\d{4}$/.test(plain.at(-1) ?? '')) return null;
  const n = quarterNumber(plain.slice(0, -1));
  return n === null ? null : daysCovered(`${plain.at(-1)}-Q${n}`);
}

function quarterNumber(words: readonly string[]): number | null {
  const [first = '', second = ''] = words;
  const [, digit] = /^q([1-4])$/.exec(first) ?? [];
  if (words.length === 1 && digit) return Number(digit);
  if (words.length !== 2) return null;
  if (first === 'quarter' && /^[1-4]$/.test(second)) return Number(second);
  return second === 'quarter' ? (ORDINALS.find(([named]) => named.test(first))?.[1] ?? null) : null;
}

/** `march`, `june to august`, `mondays`, `weekends`, `q2`: of any year. */
function seasonOf(words: readonly string[]): Time | null {
  const quarter = quarterNumber(words);
  if (quarter !== null) return { of: 'quarter', values: [quarter] };
  if (words.length === 1) {
    if (/^weekends?$/.test(words[0])) return { of: 'weekday', values: [6, 7] };
    const weekday = placeIn(WEEKDAYS, words[0].replace(/s$/, ''));
    if (weekday) return { of: 'weekday', values: [weekday] };
    const month = placeIn(MONTHS, words[0]);
    return month ? { of: 'month', values: [month] } : null;
  }
  if (words.length !== 3 || !['to', 'until'].includes(words[1])) return null;
  for (const [of, names] of [
    ['month', MONTHS],
    ['weekday', WEEKDAYS],
  ] as const) {
    const [first, end] = [placeIn(names, words[0]), placeIn(names, words[2])];
    if (!first || !end) continue;
    const count = ((end - first + names.length) % names.length) + 1;
    return {
      of,
      values: Array.from({ length: count }, (_, k) => ((first - 1 + k) % names.length) + 1),
    };
  }
  return null;
}

/** Where a name stands, from 1, by its whole or the first three letters; 0 for none. “may” is a month. */
const placeIn = (names: readonly string[], word: string): number =>
  1 +
  names.findIndex(
    (name) =>
      name.toLowerCase() === word || (word.length === 3 && name.toLowerCase().startsWith(word)),
  );

/** The period of the calendar that a span is the whole of; null where it is none. */
const wholePeriod = ({ from, to }: Span): CalendarPeriod | null =>
  CALENDAR_PERIODS.find((period) => {
    const index = periodOf(from, period);
    return periodStart(index, period) === from && periodEnd(index, period) === to;
  }) ?? null;

import type { Comparison, Condition } from '../selection/condition';
import { isoDate } from '../table/calendar';
import { spanNamed } from '../tally/wish/narrowing';
import { daysCondition } from '../tally/series/series';
import { kindsIn } from '../tally/wish/wishMeasures';
import { PERIOD_WORDS } from '../tally/wish/wishPlaces';
import type { ListWords, NamedValues } from './listWords';
import { relativeSpan } from './relativeSpan';
import { SMALL_WORDS } from './smallWords';
import type { Token } from './tokens';

/** What of a wish says which records count. */
export interface Filters {
  readonly conditions: readonly Condition[];
  /** The words that are left, as they were typed. */
  readonly rest: readonly Token[];
}

interface Read {
  readonly condition: Condition;
  /** How many words it takes. */
  readonly length: number;
}

const NOT = new Set(['without', 'except', 'excluding']);
const ONLY = new Set(['only', 'just', 'alone']);
/** Words that may stand before a value or a time. */
const IN = new Set(['in', 'on', 'at', 'during', 'of', 'for', 'from']);
const SMALL = new Set(['the', 'a', 'an']);
/** Questions that are about two times, and not about what lies within. */
const BETWEEN = /^(?:mov|gr[eo]w|chang|compound|contribut|why|rise|rose|fall|fell|rank|differ)/;
/** Words of a question about one time beside another. */
const AGAINST = new Set(['compared', 'against', 'versus', 'vs', 'than']);
/** Longest time in words: `from june to august 2025`. */
const MOST_SPAN = 6;
/** Words of the longest value that is looked for. */
const MOST_VALUE = 6;

const OPERATORS: readonly (readonly [words: readonly string[], op: Comparison])[] = [
  [['at', 'least'], 'ge'],
  [['at', 'most'], 'le'],
  [['more', 'than'], 'gt'],
  [['less', 'than'], 'lt'],
  [['fewer', 'than'], 'lt'],
  [['up', 'to'], 'le'],
  [['over'], 'gt'],
  [['above'], 'gt'],
  [['under'], 'lt'],
  [['below'], 'lt'],
  [['>='], 'ge'],
  [['<='], 'le'],
  [['≥'], 'ge'],
  [['≤'], 'le'],
  [['>'], 'gt'],
  [['<'], 'lt'],
  [['='], 'eq'],
];

const NUMBER = /^[-−]?\d+(?:[.,]\d+)*$/;

/** A number as it is typed: `1,200`, `2.5`, `−3`. NaN for none. */
const numberOf = (token: Token | undefined): number =>
  token && NUMBER.test(token.word)
    ? Number(token.word.replace('−', '-').replace(/,(?=\d{3}\b)/g, ''))
    : NaN;

/**
 * What of a wish says which records count, wherever it stands: `without gale`, `freight only`, `in 2024`,
 * `delay between 5 and 20`, `weather is gale or fog`, and a value by itself where one column holds it. What
 * stands behind “where” is asked figure by figure, and is no filter.
 * @example filtersIn(tokensOf('fares by route without gale'), words).rest // fares by route
 */
export function filtersIn(tokens: readonly Token[], words: ListWords): Filters {
  const conditions: Condition[] = [];
  const rest: Token[] = [];
  const subjects: { at: number; own: readonly Token[] }[] = [];
  const where = tokens.findIndex(({ word }) => word === 'where');
  const end = where < 0 ? tokens.length : where;
  let at = 0;
  while (at < end) {
    const read = filterAt(tokens.slice(0, end), at, words);
    if (!read) {
      rest.push(tokens[at++]);
      continue;
    }
    conditions.push(read.condition);
    const named = words.columnAt(tokens, at);
    const own = named?.type === 'number' ? tokens.slice(at, at + named.length) : [];
    // “average delay over 10”: the delays are what is asked of as well.
    if (kindsIn([rest.at(-1)?.word ?? '']).length > 0) rest.push(...own);
    else if (own.length > 0) subjects.push({ at: rest.length, own });
    at += read.length;
  }
  const left = [...rest, ...tokens.slice(end)];
  // “delay over 10 by vessel”: nothing else is named that figures could be of.
  const [subject] = subjects;
  if (subject && left.length > 0 && !left.some(({ word }) => words.isColumnWord(word, 'number')))
    left.splice(subject.at, 0, ...subject.own);
  return { conditions, rest: left };
}

/** The filter that begins at a word; null where none does. */
function filterAt(tokens: readonly Token[], at: number, words: ListWords): Read | null {
  const { word } = tokens[at];
  const skipped = (from: number): number => (SMALL.has(tokens[from]?.word) ? from + 1 : from);
  const butNot = (word === 'but' || word === 'and') && tokens[at + 1]?.word === 'not';
  const allBut = word === 'all' && tokens[at + 1]?.word === 'but';
  if (NOT.has(word) || word === 'not' || butNot || allBut) {
    const from = skipped(at + (butNot || allBut ? 2 : 1));
    const read = conditionAt(tokens, from, words) ?? valueAt(tokens, from, words);
    return read && { condition: turned(read.condition), length: from - at + read.length };
  }
  if (ONLY.has(word)) {
    const from = skipped(at + 1);
    const read =
      from < tokens.length
        ? (conditionAt(tokens, from, words) ?? valueAt(tokens, from, words))
        : null;
    return read && { condition: read.condition, length: from - at + read.length };
  }
  const condition = conditionAt(tokens, at, words);
  if (condition) return withOnly(tokens, at, condition);
  const time = timeAt(tokens, at, words);
  if (time) return withOnly(tokens, at, time);
  if (IN.has(word)) {
    const from = skipped(at + 1);
    // “of Fares” names a column, “in Nessness” a value.
    if (from >= tokens.length || words.columnAt(tokens, from)) return null;
    const read = valueAt(tokens, from, words);
    return read && withOnly(tokens, at, { ...read, length: from - at + read.length });
  }
  if ((words.isColumnWord(word) || meansElse(word)) && !tokens[at].quoted) return null;
  const value = valueAt(tokens, at, words);
  return value && withOnly(tokens, at, value);
}

/** Whether a word by itself is rather a measure, a period or a small word than a value called so. */
const meansElse = (word: string): boolean =>
  SMALL_WORDS.has(word) ||
  PERIOD_WORDS.has(word) ||
  kindsIn([word]).length > 0 ||
  NUMBER.test(word);

/** “only” behind what it is said of belongs to it. */
const withOnly = (tokens: readonly Token[], at: number, read: Read): Read =>
  ONLY.has(tokens[at + read.length]?.word) ? { ...read, length: read.length + 1 } : read;

const turned = (condition: Condition): Condition =>
  'not' in condition ? { ...condition, not: !condition.not } : condition;

/** `delay between 5 and 20`, `weather is gale or fog`, `cause is not blank`. */
function conditionAt(tokens: readonly Token[], at: number, words: ListWords): Read | null {
  const named = words.columnAt(tokens, at);
  if (!named) return null;
  let from = at + named.length;
  const says = (...said: readonly string[]): boolean =>
    said.every((word, n) => tokens[from + n]?.word === word);
  const leaf = { kind: 'leaf', column: named.column, not: false } as const;
  const done = (condition: Condition, to: number): Read => ({ condition, length: to - at });
  const is = says('is') || says('are') || says('=');
  if (is) from++;
  const not = is && says('not');
  if (not) from++;
  if (is && (says('blank') || says('empty')))
    return done({ ...leaf, not, test: { test: 'blank' } }, from + 1);
  if (is && says('unread')) return done({ ...leaf, not, test: { test: 'unread' } }, from + 1);
  if (named.type === 'number') {
    if (says('between')) {
      const [low, high] = [numberOf(tokens[from + 1]), numberOf(tokens[from + 3])];
      const joined = ['and', 'to'].includes(tokens[from + 2]?.word);
      if (!joined || Number.isNaN(low) || Number.isNaN(high)) return null;
      const test = { test: 'between', from: low, to: high, fromIn: true, toIn: true } as const;
      return done({ ...leaf, not, test }, from + 4);
    }
    const operator = OPERATORS.find(([said]) => says(...said));
    const value = numberOf(tokens[from + (operator?.[0].length ?? 0)]);
    if (Number.isNaN(value) || (!operator && !is)) return null;
    const test = { test: 'compare', op: operator?.[1] ?? 'eq', value } as const;
    return done({ ...leaf, not, test }, from + (operator?.[0].length ?? 0) + 1);
  }
  if (!is && !says('in')) return null;
  if (!is) from++;
  const values = valueAt(tokens, from, words, named.column);
  return values && done(not ? turned(values.condition) : values.condition, from + values.length);
}

/** `in 2024`, `june to august 2025`, `since 2023`: days of the list's first column of dates. */
function timeAt(tokens: readonly Token[], at: number, words: ListWords): Read | null {
  const date = words.table.columns.find(({ type }) => type === 'date' || type === 'datetime');
  if (!date) return null;
  const { word } = tokens[at];
  // “what moved fares from 2024 to 2025” is between the two.
  const between = tokens.some((token) => BETWEEN.test(token.word));
  if (between && (word === 'from' || ['from', 'to'].includes(tokens[at - 1]?.word))) return null;
  // “compared with last year” is set against it, and not narrowed to it.
  const against = tokens.some((token) => AGAINST.has(token.word));
  const open = word === 'since' || word === 'before' || word === 'after';
  const from = open || IN.has(word) ? at + 1 : at;
  for (let to = Math.min(tokens.length, from + MOST_SPAN); to > from; to--) {
    const said = tokens.slice(from, to);
    // A number that is no year says how many, or is an edge.
    if (
      said.length === 1 &&
      !/^(19|20)\d\d(-\d\d?)?(-\d\d?)?$/.test(said[0].word) &&
      !open &&
      from === at
    )
      continue;
    if (between && said.length > 1 && said.some((token) => token.word === 'to')) continue;
    const last = against ? null : words.lastDay(date.id);
    const relative =
      last === null
        ? null
        : relativeSpan(
            said.map((token) => token.word),
            last,
          );
    const span = relative ?? spanNamed(said.map(({ text }) => text).join(' '));
    if (!span) continue;
    const length = to - at;
    const leaf = { kind: 'leaf', column: date.id, not: false } as const;
    const compared = (op: Comparison, day: number): Read => ({
      condition: { ...leaf, test: { test: 'compare', op, value: isoDate(day) } },
      length,
    });
    if (word === 'since') return compared('ge', span.from);
    if (word === 'before') return compared('lt', span.from);
    if (word === 'after') return compared('gt', span.to);
    return { condition: daysCondition(date.id, span), length };
  }
  return null;
}

/** A value, or several of one column: `gale`, `gale or fog`. */
function valueAt(
  tokens: readonly Token[],
  at: number,
  words: ListWords,
  within?: string,
): Read | null {
  const first = oneValueAt(tokens, at, words, within);
  if (!first) return null;
  const values = [...first.values];
  let to = at + first.length;
  for (;;) {
    const joined = ['or', 'and'].includes(tokens[to]?.word);
    const next = joined ? to + 1 : to;
    if (!joined && !tokens[to]?.afterComma) break;
    const more = next < tokens.length ? oneValueAt(tokens, next, words, first.column) : null;
    if (!more) break;
    values.push(...more.values);
    to = next + more.length;
  }
  return {
    condition: {
      kind: 'leaf',
      column: first.column,
      not: false,
      test: { test: 'is', values: [...new Set(values)], exact: true },
    },
    length: to - at,
  };
}

function oneValueAt(
  tokens: readonly Token[],
  at: number,
  words: ListWords,
  within?: string,
): (NamedValues & { length: number }) | null {
  for (let to = Math.min(tokens.length, at + MOST_VALUE); to > at; to--) {
    const said = tokens.slice(at, to);
    const found = words.valuesNamed(said.map(({ text }) => text).join(' '), within);
    if (found) return { ...found, length: to - at };
  }
  return null;
}

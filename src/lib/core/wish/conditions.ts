import type { Comparison, Condition } from '../selection/condition';
import { isoDate } from '../table/calendar';
import { daysCondition } from '../tally/series/series';
import {
  clockTest,
  isInWhere,
  leaf,
  missingTest,
  numberTest,
  partOfText,
  skipped,
  turned,
  type Behind,
  type ReadCondition,
} from './columnTests';
import type { ListWords } from './listWords';
import { says } from './phrase';
import { timeAt, type Time } from './times';
import type { Token } from './tokens';
import {
  BLANK_WORDS,
  COMPARED,
  IN_WORDS,
  IS_WORDS,
  NOT_WORDS,
  TEXT_TESTS,
  YES_NO_WORDS,
} from './words/testWords';

/** Words of the longest value that is looked for. */
const MOST_VALUE = 8;

/**
 * Conditions as they are said, read by descent: `or` joins what `and` joins, `not` turns what follows it round, brackets
 * hold together.
 *
 *     any   = all { "or" all }
 *     all   = one { ["and" | "but"] one }
 *     one   = [ "not" ] ( "(" any ")" | column test | value | time )
 */
export class ConditionReader {
  readonly #tokens: readonly Token[];
  readonly #words: ListWords;

  constructor(tokens: readonly Token[], words: ListWords) {
    this.#tokens = tokens;
    this.#words = words;
  }

  /** What begins at a token, joined as far as it goes; null where nothing does. */
  any(at: number): ReadCondition | null {
    return this.#joined(at, ['or'], 'any', (from) => this.#all(from));
  }

  #all(at: number): ReadCondition | null {
    return this.#joined(at, ['and', 'but'], 'all', (from) => this.one(from));
  }

  #joined(
    at: number,
    joiners: readonly string[],
    kind: 'any' | 'all',
    part: (from: number) => ReadCondition | null,
  ): ReadCondition | null {
    const first = part(at);
    if (!first) return null;
    const parts = [first.condition];
    let { to } = first;
    while (joiners.includes(this.#tokens[to]?.word)) {
      const next = part(to + 1);
      if (!next) break;
      parts.push(next.condition);
      to = next.to;
    }
    return parts.length === 1 ? first : { condition: { kind, not: false, parts }, to };
  }

  /** One condition: brackets, a column and what is asked of it, a value, a time; or what turns it round. */
  one(at: number): ReadCondition | null {
    const token = this.#tokens[at];
    if (!token) return null;
    if (token.word === '(' && !token.quoted) {
      const inner = this.any(at + 1);
      return inner && this.#tokens[inner.to]?.word === ')' ? { ...inner, to: inner.to + 1 } : null;
    }
    if (!token.quoted && NOT_WORDS.has(token.word)) {
      // A value may begin so: “not found”.
      const value = this.#oneValue(at);
      if (value && value.length > 1) return this.value(at);
      const from = this.#skipped(at + 1);
      const lacking = this.#lacking(from, token.word);
      if (lacking) return lacking;
      const read = this.one(from);
      return read && turned(read);
    }
    return this.#asked(at) ?? this.value(this.#skipped(at)) ?? this.time(at, null);
  }

  /** `without labour hours`, `not collected`: records that have none; `not cancelled`: those that are no such. */
  #lacking(at: number, word: string): ReadCondition | null {
    const column = this.#words.columnAt(this.#tokens, at);
    if (!column || this.#asked(at)) return null;
    const to = at + column.length;
    if (column.type === 'yesno')
      return turned({
        condition: leaf(column.column, { test: 'is', values: ['yes'], exact: false }),
        to,
      });
    // “not delay”: of a number or a text that says nothing; “without delay” does.
    const dated = column.type === 'date' || column.type === 'datetime';
    if (word === 'not' && !dated) return null;
    if (word === 'except' || word === 'excluding') return null;
    return { condition: leaf(column.column, { test: 'blank' }), to };
  }

  /** A column and what is asked of it: `delay between 5 and 20`, `weather is gale or fog`, `cause is not blank`. */
  #asked(at: number): ReadCondition | null {
    const blank = BLANK_WORDS.has(this.#tokens[at].word) ? at + 1 : -1;
    if (blank > 0) {
      const column = this.#tokens[blank] ? this.#words.columnAt(this.#tokens, blank) : null;
      return (
        column && { condition: leaf(column.column, { test: 'blank' }), to: blank + column.length }
      );
    }
    const named = this.#words.columnAt(this.#tokens, at) ?? this.#columnLike(at);
    if (!named) return null;
    const { column, type } = named;
    let from = at + named.length;
    const is = IS_WORDS.has(this.#tokens[from]?.word);
    if (is) from++;
    if (!is && this.#tokens[from]?.afterComma) return null;
    // “fault is not found”: a value may begin so.
    const whole = this.#tokens[from]?.word === 'not' ? this.#oneValue(from, column) : null;
    const not = this.#tokens[from]?.word === 'not' && (whole?.length ?? 0) < 2;
    if (not) from++;
    if (from >= this.#tokens.length) return null;
    const read =
      missingTest(column, this.#behind(from, is)) ??
      (type === 'number'
        ? numberTest(column, this.#behind(from, is))
        : type === 'date' || type === 'datetime'
          ? this.time(from, column)
          : type === 'time'
            ? clockTest(column, this.#behind(from, is))
            : this.#textTest(column, type, from, is || not));
    return read && (not ? turned(read) : read);
  }

  /** A column by a word of its name, where a comparison follows: only then is it meant here. */
  #columnLike(at: number): { column: string; type: string; length: number } | null {
    const { word, quoted } = this.#tokens[at];
    const next = this.#tokens[at + 1];
    if (quoted || next === undefined) return null;
    const compares =
      IS_WORDS.has(next.word) ||
      next.word === 'between' ||
      [...COMPARED, ...TEXT_TESTS].some(([said]) => says(this.#tokens, at + 1, said));
    if (!compares) return null;
    const [column] = this.#words.columnsWith(word);
    const found = this.#words.table.columns.find(({ id }) => id === column);
    return found ? { column: found.id, type: found.type, length: 1 } : null;
  }

  #textTest(column: string, type: string, at: number, is: boolean): ReadCondition | null {
    const part = partOfText(column, this.#behind(at, is));
    if (part) return part;
    const inside = !is && this.#tokens[at]?.word === 'in';
    const from = this.#skipped(inside ? at + 1 : at);
    const said = type === 'yesno' || is || inside || isInWhere(this.#tokens, at);
    const read = said ? this.value(from, column) : null;
    if (read || !is || this.#words.isLookedThrough(column)) return read;
    // Of too many texts to look through, the one that was typed is asked for as it is.
    const token = this.#tokens[from];
    return token
      ? {
          condition: leaf(column, { test: 'is', values: [token.text], exact: false }),
          to: from + 1,
        }
      : null;
  }

  /** A value, or several of one column: `gale`, `gale or fog`. */
  value(at: number, within?: string): ReadCondition | null {
    const found = this.#oneValue(at, within);
    if (!found) return null;
    const reads = found.columns.map(({ column, values }) =>
      this.#several(column, values, at + found.length),
    );
    // Of several columns that have the first value, the one that has the others too.
    const to = Math.max(...reads.map((read) => read.to));
    const [condition, ...others] = reads
      .filter((read) => read.to === to)
      .map((read) => read.condition);
    return { condition, to, ...(others.length > 0 && { others }) };
  }

  #several(column: string, first: readonly string[], from: number): ReadCondition {
    const values = [...first];
    let to = from;
    for (;;) {
      const joined = ['or', 'and'].includes(this.#tokens[to]?.word);
      if (!joined && !this.#tokens[to]?.afterComma) break;
      const next = this.#skipped(joined ? to + 1 : to);
      const more = this.#oneValue(next, column);
      if (!more) break;
      values.push(...more.columns[0].values);
      to = next + more.length;
    }
    return {
      condition: leaf(column, { test: 'is', values: spelledOnce(values), exact: false }),
      to,
    };
  }

  #oneValue(
    at: number,
    within?: string,
  ): { columns: readonly { column: string; values: readonly string[] }[]; length: number } | null {
    for (let to = Math.min(this.#tokens.length, at + MOST_VALUE); to > at; to--) {
      const said = this.#tokens.slice(at, to);
      // Yes and no are values of a column that is named, never by themselves.
      if (
        within === undefined &&
        said.length === 1 &&
        YES_NO_WORDS.has(said[0].word) &&
        !said[0].quoted
      )
        continue;
      const columns = this.#words.valuesNamed(said.map(({ word }) => word).join(' '), within);
      if (columns.length > 0) return { columns, length: to - at };
    }
    return null;
  }

  /** A time of a column of dates; of the list's first where none is named, and then the others are choices. */
  time(at: number, named: string | null): ReadCondition | null {
    const dates = this.#words.dateColumns;
    const column = named ?? dates[0];
    if (column === undefined) return null;
    const { word } = this.#tokens[at];
    const side = SIDES.get(word);
    const from = side || IN_WORDS.has(word) || word === 'between' ? at + 1 : at;
    if (from >= this.#tokens.length) return null;
    const read = timeAt(this.#tokens, from, this.#words.lastDay(column));
    if (!read) return null;
    // A weekday or a month of any year is said with what leads to it; “march” alone may be a name.
    if ('of' in read.time && (side || (from === at && named === null))) return null;
    const conditionOf = (id: string): Condition => timeCondition(id, read.time, side);
    const others = named === null ? dates.slice(1, 4).map(conditionOf) : [];
    return {
      condition: conditionOf(column),
      to: from + read.length,
      ...(others.length > 0 && { others }),
    };
  }

  #skipped(at: number): number {
    return skipped(this.#tokens, at);
  }

  #behind(at: number, is: boolean): Behind {
    return { tokens: this.#tokens, words: this.#words, at, is };
  }
}

/** Words before a time that leave one side of it open. */
const SIDES: ReadonlyMap<string, Comparison> = new Map([
  ['since', 'ge'],
  ['before', 'lt'],
  ['after', 'gt'],
  ['until', 'le'],
]);

/** Days in the words for them: a year, a quarter, a month or a week is in it, other days are from one to another. */
export function timeCondition(column: string, time: Time, side?: Comparison): Condition {
  if ('of' in time) return leaf(column, { test: 'season', of: time.of, values: [...time.values] });
  const { period, span } = time;
  if (side) {
    const day = side === 'ge' || side === 'lt' ? span.from : span.to;
    return leaf(column, { test: 'compare', op: side, value: isoDate(day) });
  }
  if (period === null || period === 'half' || period === 'day') return daysCondition(column, span);
  return leaf(column, { test: 'period', period, days: [isoDate(span.from)] });
}

/** Each value in one of its spellings: case and outer spaces tell none apart. */
const spelledOnce = (values: readonly string[]): string[] => [
  ...new Map(values.map((value) => [value.trim().toLowerCase(), value.trim()] as const)).values(),
];

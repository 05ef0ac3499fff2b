import type { Comparison, Condition, Leaf, Test } from '../selection/condition';
import type { ListWords } from './listWords';
import { says } from './phrase';
import { numberOf, sameWord, type Token } from './tokens';
import { ARTICLES, BLANK_WORDS, COMPARED, COMPARED_BEHIND, TEXT_TESTS } from './words/testWords';

/** A condition that was read, where it ends, and what the same words could mean as well. */
export interface ReadCondition {
  readonly condition: Condition;
  readonly to: number;
  readonly others?: readonly Condition[];
}

/** What stands behind the name of a column, where it begins, and whether “is” stands between. */
export interface Behind {
  readonly tokens: readonly Token[];
  readonly words: ListWords;
  readonly at: number;
  readonly is: boolean;
}

export const leaf = (column: string, test: Test): Leaf => ({
  kind: 'leaf',
  column,
  not: false,
  test,
});

/** The same turned round, and what else the words could mean with it. */
export const turned = ({ condition, to, others }: ReadCondition): ReadCondition => ({
  condition: turnedRound(condition),
  to,
  ...(others && { others: others.map(turnedRound) }),
});

const turnedRound = (condition: Condition): Condition => ({ ...condition, not: !condition.not });

/** The next word, without an article. */
export const skipped = (tokens: readonly Token[], at: number): number =>
  ARTICLES.has(tokens[at]?.word) && tokens[at + 1] ? at + 1 : at;

/** Behind “where”, a column and what stands beside it are a condition: `where delay 0`. */
export const isInWhere = (tokens: readonly Token[], at: number): boolean =>
  tokens.slice(0, at).some(({ word }) => word === 'where');

/** `is blank`, `is unread`. */
export function missingTest(column: string, { tokens, at, is }: Behind): ReadCondition | null {
  const { word } = tokens[at];
  if (is && BLANK_WORDS.has(word))
    return { condition: leaf(column, { test: 'blank' }), to: at + 1 };
  return is && word === 'unread'
    ? { condition: leaf(column, { test: 'unread' }), to: at + 1 }
    : null;
}

/** `between 5 and 20`, `at least £10`, `10 min or more`, `above its mean`. */
export function numberTest(column: string, behind: Behind): ReadCondition | null {
  const { tokens, at } = behind;
  const from = tokens[at]?.word === 'of' ? at + 1 : at;
  const within = betweenTest(column, from, behind);
  if (within !== undefined) return within;
  const side = (['above', 'below'] as const).find((word) => tokens[from]?.word === word);
  const mean = skipped(tokens, from + 1);
  if (side && /^(?:mean|average)$/.test(tokens[mean]?.word ?? ''))
    return { condition: leaf(column, { test: 'mean', side }), to: mean + 1 };
  const [said, op] = COMPARED.find(([words]) => says(tokens, from, words)) ?? [[], null];
  const number = numberAt(column, from + said.length, behind);
  if (!number || TIMELY.has(said[0])) return null;
  const compare = (of: Comparison, to: number): ReadCondition => ({
    condition: leaf(column, { test: 'compare', op: of, value: number.value }),
    to,
  });
  if (op) return compare(op, number.to);
  const after = COMPARED_BEHIND.find(([words]) => says(tokens, number.to, words));
  if (after) return compare(after[1], number.to + after[0].length);
  return behind.is || isInWhere(tokens, at) ? compare('eq', number.to) : null;
}

/** From one number to another; null where that is of no number, undefined where nothing such is said. */
function betweenTest(
  column: string,
  from: number,
  behind: Behind,
): ReadCondition | null | undefined {
  const { tokens, words } = behind;
  const spanning = ['between', 'from'].includes(tokens[from]?.word);
  const low = numberAt(column, spanning ? from + 1 : from, behind);
  if (!low) return undefined;
  // “fares from 2023 to 2025”, “fares before 2024” are about times.
  if (isYear(low.value) && TIMELY.has(tokens[from]?.word) && words.dateColumns.length > 0)
    return null;
  const joiner = tokens[low.to]?.word;
  if (joiner !== 'to' && !(spanning && joiner === 'and')) return undefined;
  const high = numberAt(column, low.to + 1, behind);
  if (!high) return undefined;
  const test = {
    test: 'between',
    from: low.value,
    to: high.value,
    fromIn: true,
    toIn: true,
  } as const;
  return { condition: leaf(column, test), to: high.to };
}

/** A number, and the column's unit behind it. */
function numberAt(
  column: string,
  at: number,
  { tokens, words }: Behind,
): { readonly value: number; readonly to: number } | null {
  const value = numberOf(tokens[at]);
  if (Number.isNaN(value)) return null;
  const unit = words.table.columns.find(({ id }) => id === column)?.unit.toLowerCase() ?? '';
  const next = tokens.at(at + 1);
  const isUnit =
    unit !== '' && next !== undefined && at + 1 < tokens.length && sameWord(next.word, unit);
  return { value, to: at + 1 + Number(isUnit) };
}

/** `before 09:30` of a column of times. */
export function clockTest(column: string, { tokens, at }: Behind): ReadCondition | null {
  const [said, op] = COMPARED.find(([words]) => says(tokens, at, words)) ?? [['at'], null];
  const clock = tokens[at + said.length];
  if (!op || !/^\d{1,2}:\d{2}(?::\d{2})?$/.test(clock?.word ?? '')) return null;
  return {
    condition: leaf(column, { test: 'compare', op, value: clock.word.padStart(5, '0') }),
    to: at + said.length + 1,
  };
}

/** `starts with nor`, `contains "th e"`. */
export function partOfText(column: string, { tokens, at }: Behind): ReadCondition | null {
  const looks = TEXT_TESTS.find(([words]) => says(tokens, at, words));
  const sought = looks && tokens[at + looks[0].length];
  return looks && sought
    ? {
        condition: leaf(column, { test: looks[1], text: sought.text, exact: false }),
        to: at + looks[0].length + 1,
      }
    : null;
}

/** Words that are said of times before all. */
const TIMELY: ReadonlySet<string | undefined> = new Set(['from', 'since', 'before', 'after']);

const isYear = (value: number): boolean => Number.isInteger(value) && value >= 1900 && value < 2100;

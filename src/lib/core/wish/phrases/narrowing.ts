import { skipped, turned, type ReadCondition } from '../columnTests';
import { ConditionReader, timeCondition } from '../conditions';
import type { Condition } from '../../selection/condition';
import { PeriodName } from '../../tally/series/periodNamed';
import { MEASURE_WORDS } from '../words/measureWords';
import { PERIOD_WORDS } from '../words/periodWords';
import { SMALL_WORDS } from '../words/smallWords';
import { IN_WORDS, NOT_WORDS, ONLY_WORDS } from '../words/testWords';
import { timeAt } from '../times';
import { numberOf, type Token } from '../tokens';
import type { Part, Phrase, Phrases, Typed } from '../phrase';
import { says } from '../phrase';

/** Questions that are about two times, and not about what lies within. */
const ABOUT_TWO =
  /^(?:mov|gr[eo]w|chang|compound|contribut|why|rise|rose|fall|fell|rank|differ|drove)/;

/** Words before a column to group by. */
const GROUPING: ReadonlySet<string | undefined> = new Set(['per', 'by', 'each', 'every', 'across']);

/** Which records count, wherever it stands: `without gale`, `freight only`, `in 2024`, `delay between 5 and 20`. */
export const narrowPhrases: Phrases = (typed, at) => {
  const { tokens } = typed;
  const { word, quoted } = tokens[at];
  if (tokens.slice(0, at).some((token) => token.word === 'where' && !token.quoted)) return [];
  const reader = new ConditionReader(tokens, typed.words);
  const plain = (from: number, fit: number): Phrase[] => {
    const read = reader.any(from);
    if (!read || isAboutTwo(typed, from, read)) return [];
    const only = ONLY_WORDS.has(tokens[read.to]?.word);
    const to = only ? read.to + 1 : read.to;
    return [phrase(at, to, read, only ? 6 : fit)];
  };
  if (quoted) return plain(at, 6);
  if (ONLY_WORDS.has(word)) return tokens[at + 1] ? plain(skipped(tokens, at + 1), 6) : [];
  const butNot = (word === 'but' || word === 'and') && tokens[at + 1]?.word === 'not';
  const allBut = word === 'all' && tokens[at + 1]?.word === 'but';
  if (butNot || allBut) {
    const read = reader.one(skipped(tokens, at + 2));
    return read ? [phrase(at, read.to, turned(read), 6)] : [];
  }
  if (NOT_WORDS.has(word) || word === '(') return plain(at, 6);
  const flag = flagAt(typed, at);
  const out = flag ? [flag] : [];
  // “of Fares” names a column, “in Nessness” a value.
  if (IN_WORDS.has(word) && tokens[at + 1] && !isTime(typed, at)) {
    const from = skipped(tokens, at + 1);
    if (typed.words.columnAt(tokens, from) && !reader.value(from)) return out;
    return [...out, ...plain(from, 5)];
  }
  // “per tide” groups or divides, and never narrows to a value.
  if (GROUPING.has(tokens[at - 1]?.word) && reader.value(at)) return out;
  // A word by itself may be the name of a value; several say what they say.
  const alone = reader.any(at)?.to === at + 1 && meansElse(tokens[at]);
  return [...out, ...plain(at, isTime(typed, at - 1) ? 6 : alone ? -12 : 4)];
};

const phrase = (
  from: number,
  to: number,
  { condition, others }: ReadCondition,
  fit: number,
): Phrase => ({
  from,
  to,
  part: { is: 'narrow', condition },
  fit,
  ...(others && { others: others.map((other): Part => ({ is: 'narrow', condition: other })) }),
});

/** Whether a word by itself is rather a measure, a period or a small word than a value called so. */
const meansElse = (token: Token): boolean =>
  SMALL_WORDS.has(token.word) ||
  PERIOD_WORDS.has(token.word) ||
  MEASURE_WORDS.has(token.word) ||
  (!Number.isNaN(numberOf(token)) && !/^(?:19|20)\d\d/.test(token.word));

/** Whether days are named behind a word: `last quarter` is more than its words. */
const isTime = ({ tokens, words }: Typed, at: number): boolean => {
  const [date] = words.dateColumns;
  const read = date === undefined ? null : timeAt(tokens, at + 1, words.lastDay(date));
  return read !== null && ('span' in read.time || IN_WORDS.has(tokens[at]?.word));
};

/** “what moved fares from 2024 to 2025” is between the two. */
function isAboutTwo({ tokens, words }: Typed, at: number, read: ReadCondition): boolean {
  if (!tokens.some(({ word }) => ABOUT_TWO.test(word))) return false;
  const [first] = 'parts' in read.condition ? read.condition.parts : [read.condition];
  const dated = first.kind === 'leaf' && words.dateColumns.includes(first.column);
  const two = tokens.slice(at, read.to).some(({ word }) => word === 'to' || word === 'and');
  return (
    dated &&
    (two ||
      ['from', 'to'].includes(tokens[at]?.word) ||
      ['from', 'to', 'and'].includes(tokens[at - 1]?.word))
  );
}

/** A yes/no column by itself, behind other words: `sailings cancelled by cause`, `under warranty only`. */
function flagAt({ tokens, words }: Typed, at: number): Phrase | null {
  const from = tokens[at].word === 'with' ? at + 1 : at;
  const column = tokens[from] ? words.columnAt(tokens, from) : null;
  if (
    column?.type !== 'yesno' ||
    ['by', 'per', 'of', 'each', 'across'].includes(tokens[from - 1]?.word)
  )
    return null;
  const to = from + column.length;
  const only = ONLY_WORDS.has(tokens[to]?.word) || ONLY_WORDS.has(tokens[from - 1]?.word);
  const condition: Condition = {
    kind: 'leaf',
    column: column.column,
    not: false,
    test: { test: 'is', values: ['yes'], exact: false },
  };
  // By itself at the very beginning it is what is asked of; so it is between what groups are made by.
  const joined =
    tokens[from - 1]?.word === 'and' ||
    tokens[from]?.afterComma ||
    (to === tokens.length && at === 0);
  return {
    from: at,
    to: to + Number(ONLY_WORDS.has(tokens[to]?.word)),
    part: { is: 'narrow', condition },
    fit: only ? 7 : at === 0 || joined ? -2 : 6,
  };
}

/** Figures under conditions: `where delay at least 10, where weather is gale or fog`. */
export const wherePhrases: Phrases = ({ tokens, words }, at) => {
  if (tokens[at].word !== 'where' || tokens[at].quoted || !tokens[at + 1]) return [];
  const reader = new ConditionReader(tokens, words);
  const read = reader.any(skipped(tokens, at + 1));
  if (!read) return [];
  return [
    {
      from: at,
      to: read.to,
      part: { is: 'where', condition: read.condition },
      fit: 8,
      ...(read.others && {
        others: read.others.map((condition): Part => ({ is: 'where', condition })),
      }),
    },
  ];
};

/** `from 2024 to 2025` of a question about two times; `2024 and 2025 side by side` of any. */
export const spanPhrases: Phrases = (typed, at) => {
  const { tokens } = typed;
  const from = ['from', 'between', 'in'].includes(tokens[at].word) ? at + 1 : at;
  const joiner = tokens[from + 1]?.word;
  const ends = [tokens[from], tokens[from + 2]].map((token) =>
    PeriodName.safeParse(token?.word.toUpperCase()),
  );
  const out: Phrase[] = [];
  if (
    ['to', 'and'].includes(joiner) &&
    ends[0].success &&
    ends[1].success &&
    tokens.some(({ word }) => ABOUT_TWO.test(word))
  )
    out.push({
      from: at,
      to: from + 3,
      part: { is: 'ends', from: ends[0].data, to: ends[1].data },
      fit: 9,
    });
  const spans = ['from', 'between'].includes(tokens[at].word) || tokens[at - 1]?.word === 'between';
  const beside = spans ? null : besideAt(typed, from);
  if (beside) out.push({ ...beside, from: at });
  return out;
};

/** Several periods of one length with “and” or “versus” between: one beside the other. */
function besideAt({ tokens, words }: Typed, at: number): Phrase | null {
  const [date] = words.dateColumns;
  if (date === undefined) return null;
  const last = words.lastDay(date);
  const conditions: Condition[] = [];
  let period: Extract<Part, { is: 'beside' }>['period'] | null = null;
  let to = at;
  for (let from = at; from < tokens.length;) {
    // Each time by itself: “2024 and 2025” are two.
    const stop = tokens.findIndex(
      ({ word }, k) => k > from && ['and', 'versus', 'vs', 'with'].includes(word),
    );
    const own = tokens.slice(0, stop < 0 ? tokens.length : stop);
    const read = timeAt(own, from, last);
    if (!read || !('span' in read.time) || read.time.period === null) break;
    if (period !== null && period !== read.time.period) break;
    period = read.time.period;
    conditions.push(timeCondition(date, read.time));
    to = from + read.length;
    if (stop !== to && !tokens[to]?.afterComma) break;
    from = stop === to ? to + 1 : to;
  }
  if (period === null || conditions.length < 2) return null;
  const side = says(tokens, to, ['side', 'by', 'side']);
  return {
    from: at,
    to: side ? to + 3 : to,
    part: { is: 'beside', period, condition: { kind: 'any', not: false, parts: conditions } },
    fit: 7,
  };
}

import type { Part, Phrase, Phrases, Role } from '../phrase';
import { says } from '../phrase';
import { MONTHS } from '../../table/calendar';
import { WORDS_OF_KINDS } from '../../tally/wish/guesses';
import { PERIOD_WORDS } from '../words/periodWords';
import { SMALL_WORDS } from '../words/smallWords';

const ROLES: readonly (readonly [words: readonly string[], role: Role])[] = [
  [['for', 'each'], 'each'],
  [['for', 'every'], 'each'],
  [['of', 'each'], 'each'],
  [['in', 'each'], 'within'],
  [['in', 'every'], 'within'],
  [['within', 'each'], 'within'],
  [['each'], 'each'],
  [['every'], 'each'],
  [['within'], 'within'],
  [['grouped', 'by'], 'by'],
  [['split', 'by'], 'by'],
  [['by'], 'by'],
];

/** Phrases of a few fixed words. */
const FIXED: readonly (readonly [words: readonly string[], part: Part, fit: number])[] = [
  [['per'], { is: 'role', role: 'by', per: true }, 3],
  ...ROLES.map(([words, role]) => [words, { is: 'role', role }, 3] as const),
  [['across'], { is: 'across' }, 4],
  [['year', 'to', 'date'], { is: 'toDate' }, 8],
  [['to', 'date'], { is: 'toDate' }, 6],
  [['ytd'], { is: 'toDate' }, 5],
  [['±'], { is: 'deviation' }, 5],
  [['+/-'], { is: 'deviation' }, 5],
  [['how', 'often'], { is: 'often' }, 8],
  [['most', 'first'], { is: 'often' }, 7],
  [['commonest'], { is: 'often' }, 5],
  [['most', 'common'], { is: 'often' }, 6],
  [['most', 'frequent'], { is: 'often' }, 6],
  [['best'], { is: 'best' }, 4],
  [['which'], { is: 'which' }, 2],
  [['who'], { is: 'which' }, 2],
  [['side', 'by', 'side'], { is: 'side' }, 8],
  [['and', 'both'], { is: 'both' }, 5],
  [['both'], { is: 'both' }, 4],
  [['and', 'neither'], { is: 'neither' }, 5],
  [['neither'], { is: 'neither' }, 4],
  [['day', 'of', 'the', 'week'], { is: 'period', period: 'weekday' }, 8],
  [['day', 'of', 'week'], { is: 'period', period: 'weekday' }, 8],
  [['half', 'year'], { is: 'period', period: 'half' }, 6],
  [['sorted', 'by'], { is: 'order', of: 'highest' }, 6],
  [['ordered', 'by'], { is: 'order', of: 'highest' }, 6],
  [['year', 'on', 'year'], { is: 'against', what: 'yearBefore' }, 8],
  [['month', 'on', 'month'], { is: 'against', what: 'previous' }, 8],
  [['quarter', 'on', 'quarter'], { is: 'against', what: 'previous' }, 8],
  [['and', 'others'], { is: 'small' }, 3],
  [['and', 'all', 'others'], { is: 'small' }, 3],
];

/** Words that are one phrase each, wherever they stand. */
export const fixedPhrases: Phrases = ({ tokens }, at) =>
  FIXED.flatMap(([words, part, fit]): Phrase[] =>
    says(tokens, at, words) ? [{ from: at, to: at + words.length, part, fit }] : [],
  );

/** `by month`, `monthly`. */
export const periodPhrases: Phrases = ({ tokens }, at) => {
  const period = tokens[at].quoted ? undefined : PERIOD_WORDS.get(tokens[at].word);
  return period ? [{ from: at, to: at + 1, part: { is: 'period', period }, fit: 4 }] : [];
};

const SET_AGAINST = new Set(['against', 'versus', 'vs', 'than']);
const BEFORE = new Set(['last', 'previous', 'prior']);

/** `compared with last year`, `against the month before`, `vs the same month a year before`. */
export const againstPhrases: Phrases = ({ tokens }, at) => {
  const compared =
    /^compared?$/.test(tokens[at].word) && /^(?:with|to|against)$/.test(tokens[at + 1]?.word ?? '');
  if (!compared && !SET_AGAINST.has(tokens[at].word)) return [];
  let from = at + (compared ? 2 : 1);
  while (['the', 'a', 'same', 'that', 'of'].includes(tokens[from]?.word)) from++;
  const [first, second] = [tokens[from]?.word ?? '', tokens[from + 1]?.word ?? ''];
  const named = BEFORE.has(first) ? second : /^(?:before|earlier|ago)$/.test(second) ? first : '';
  const period = named === 'period' ? 'period' : PERIOD_WORDS.get(named);
  if (!period) return [];
  const what = period === 'year' ? 'yearBefore' : 'previous';
  return [{ from: at, to: from + 2, part: { is: 'against', what }, fit: 9 }];
};

/** `from April`, `years that start in April`: where no span of months or days is meant. */
export const yearStartPhrases: Phrases = ({ tokens }, at) => {
  let from = at;
  for (const optional of [['with'], ['years'], ['that']]) if (says(tokens, from, optional)) from++;
  if (!/^(?:from|starts?|starting)$/.test(tokens[from]?.word ?? '')) return [];
  from++;
  if (/^(?:in|with)$/.test(tokens[from]?.word ?? '')) from++;
  const month = 1 + MONTHS.findIndex((name) => name.toLowerCase() === tokens[from]?.word);
  const spans = /^(?:to|until|\d.*)$/.test(tokens[from + 1]?.word ?? '');
  const periods = tokens.some(({ word }) => PERIOD_WORDS.has(word));
  if (month === 0 || spans || !periods) return [];
  return [{ from: at, to: from + 1, part: { is: 'yearStart', month }, fit: 8 }];
};

const ASKED = [...WORDS_OF_KINDS].map(([words, kinds]) => ({ words: words.split(' '), kinds }));

/** Words that name a question (`rank`, `growth`, `what moved`), and small words. */
export const loosePhrases: Phrases = ({ tokens, words }, at) => {
  const { word, quoted } = tokens[at];
  if (quoted) return [];
  const out: Phrase[] = ASKED.filter(({ words: said }) => says(tokens, at, said)).map(
    ({ words: said, kinds }) => {
      const to = at + said.length;
      // “rank product by value” asks, whatever a column is called.
      const leads = tokens[to] !== undefined && words.columnAt(tokens, to) !== null;
      return { from: at, to, part: { is: 'asks', kinds }, fit: leads ? 6 : 1 };
    },
  );
  if (SMALL_WORDS.has(word)) out.push({ from: at, to: at + 1, part: { is: 'small' }, fit: 0 });
  return out;
};

import { MEASURES } from '../measure/measure';
import { describeCondition } from '../selection/describe';
import { MONTHS } from '../table/calendar';
import { counted, givenNumber, listed } from '../table/format';
import type { Names } from '../tally/kind/kind';
import type { Part, Phrase } from './phrase';
import type { Token } from './tokens';

/** Some words of a wish, as they were typed, and what they were read as; empty where they were not understood. */
export interface ReadAs {
  readonly typed: string;
  readonly as: string;
}

/**
 * A wish word by word: each phrase with what it is read as, small words with the phrase they lead to, and words that
 * were not understood.
 * @param left tokens that the tally does not say
 * @example readAs(tokens, phrases, [], names) // [{ typed: 'fares', as: 'Fares taken' }, { typed: 'by route', as: 'Route' }]
 */
export function readAs(
  tokens: readonly Token[],
  phrases: readonly Phrase[],
  left: readonly Token[],
  names: Names,
): ReadAs[] {
  const out: ReadAs[] = [];
  // Small words wait for the phrase that they lead to.
  let waiting: string[] = [];
  const put = (typed: string, as: string): void => {
    out.push({ typed: [...waiting, typed].join(' '), as });
    waiting = [];
  };
  for (let at = 0; at < tokens.length;) {
    const phrase = phrases.find(({ from }) => from === at);
    const to = phrase?.to ?? at + 1;
    const own = tokens.slice(at, to);
    const typed = own.map(({ text }) => text).join(' ');
    const as = phrase ? wordsOf(phrase.part, names) : '';
    const isLeft = own.some((token) => left.includes(token));
    if (isLeft) {
      const before = out.at(-1);
      if (before?.as === '' && waiting.length === 0)
        out[out.length - 1] = { typed: `${before.typed} ${typed}`, as: '' };
      else put(typed, '');
    } else if (as === '') waiting.push(typed);
    else put(typed, as);
    at = to;
  }
  return out;
}

const PLAIN: Readonly<Partial<Record<Part['is'], string>>> = {
  both: 'those that meet all',
  neither: 'those that meet none',
  bands: 'in bands',
  across: 'side by side',
  toDate: 'since the start of the year',
  deviation: '± deviation',
  often: 'how often',
  best: 'the best of each',
  side: 'side by side',
  records: 'records',
};

/** What a part means, in a few words; none for those that only lead to the next. */
function wordsOf(part: Part, names: Names): string {
  switch (part.is) {
    case 'column':
      return names.get(part.column) ?? part.column;
    case 'measure':
      return part.percent === undefined
        ? MEASURES[part.kind].words
        : `percentile ${givenNumber(part.percent)}`;
    case 'period':
      return `by ${part.period}`;
    case 'narrow':
    case 'where':
    case 'beside':
      return describeCondition(part.condition, names);
    case 'count':
      return `the ${part.of === 'highest' ? 'first' : 'last'} ${givenNumber(part.count)}`;
    case 'order':
      return `${part.of} first`;
    case 'ahead':
      return counted(part.count, 'period') + ' ahead';
    case 'ends':
      return `from ${part.from} to ${part.to}`;
    case 'percent':
      return `percentile ${givenNumber(part.value)}`;
    case 'stands':
      return `where ${givenNumber(part.value)} stands`;
    case 'edges':
      return `bands from ${listed(part.edges.map((edge) => givenNumber(edge)))}`;
    case 'width':
      return `bands ${givenNumber(part.width)} wide`;
    case 'table':
      return `the bands “${part.table.name}”`;
    case 'against':
      return part.what === 'previous' ? 'the period before' : 'a year before';
    case 'yearStart':
      return `years from ${MONTHS[part.month - 1]}`;
    case 'between':
      return part.op === 'ratio' ? 'ratio of sums' : 'difference of sums';
    case 'asks':
      return 'the question';
    default:
      return PLAIN[part.is] ?? '';
  }
}

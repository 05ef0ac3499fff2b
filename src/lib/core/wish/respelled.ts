import { distance } from '../table/nearest';
import { CALENDAR_PERIODS } from '../table/period';
import type { ListWords } from './listWords';
import { tokensOf } from './tokens';
import { MEASURE_WORDS } from './words/measureWords';
import { PERIOD_WORDS } from './words/periodWords';

/** A word that was not understood, and the word of the list or of wishes that it was taken for. */
export interface Respelling {
  readonly typed: string;
  readonly takenFor: string;
}

/** Words of wishes besides those of the list. */
const WORDS: readonly string[] = [
  ...MEASURE_WORDS,
  ...PERIOD_WORDS.keys(),
  ...CALENDAR_PERIODS,
  'without',
  'except',
  'between',
  'forecast',
  'cumulative',
  'frequency',
];

/** Shorter words are too like too many others. */
const LEAST = 4;

/** Letters that may be wrong in a word so long. */
const mistakesIn = (word: string): number => (word.length >= 8 ? 2 : 1);

/**
 * A wish with the words that were not understood written as the nearest that is: the first letter is right, and one letter
 * is wrong, or two of a long word. Null where no word has such a neighbour.
 * @param left the words that were not understood, as they were typed
 * @example respelled('fares by vesel', ['by vesel'], words)?.typed // 'fares by Vessel'
 */
export function respelled(
  typed: string,
  left: readonly string[],
  words: ListWords,
): { typed: string; taken: Respelling[] } | null {
  const unknown = new Set(left.flatMap((part) => tokensOf(part).map(({ word }) => word)));
  const known = [...words.vocabulary, ...WORDS];
  const taken: Respelling[] = [];
  let next = typed;
  for (const { text, word, quoted } of tokensOf(typed)) {
    if (quoted || !unknown.has(word) || word.length < LEAST) continue;
    const near = nearWord(word, known);
    if (near === null) continue;
    taken.push({ typed: text, takenFor: near });
    next = next.replace(wholeWord(text), () => near);
  }
  return taken.length > 0 ? { typed: next, taken } : null;
}

/** A word where it stands by itself, not within another. */
const wholeWord = (text: string): RegExp =>
  new RegExp(
    `(?<![\\p{L}\\p{N}])${text.replace(/[\\^$.*+?()[\]{}|]/g, '\\$&')}(?![\\p{L}\\p{N}])`,
    'u',
  );

function nearWord(word: string, known: readonly string[]): string | null {
  let best: string | null = null;
  let least = mistakesIn(word) + 1;
  for (const candidate of known) {
    if (candidate.length < LEAST || candidate[0] !== word[0]) continue;
    if (Math.abs(candidate.length - word.length) >= least) continue;
    const far = distance(word, candidate);
    if (far > 0 && far < least) [best, least] = [candidate, far];
  }
  return best;
}

import { tokensOf } from './tokens';
import { ARTICLES, NOT_WORDS, ONLY_WORDS } from './words/testWords';

/** Words that look for a value, and what is to be done with it. */
export interface Search {
  /** It says itself that records are to be narrowed: “only”, “without”. */
  readonly said: boolean;
  /** What is named shall not count. */
  readonly not: boolean;
  readonly search: string;
}

/**
 * What is looked for among the values of a list while it is typed.
 * @example searchOf('without the gales') // { said: true, not: true, search: 'gale' }
 */
export function searchOf(typed: string): Search {
  const words = tokensOf(typed);
  const not = words.length > 1 && NOT_WORDS.has(words[0].word);
  const plain = words.slice(Number(not)).filter(({ word }) => !ONLY_WORDS.has(word));
  const said = not || plain.length < words.length - Number(not);
  if (plain.length > 1 && ARTICLES.has(plain[0].word)) plain.shift();
  const search = plain.map(({ text }) => text).join(' ');
  // Several are named by their plural: each value of the list stands for one.
  return { said, not, search: search.length > 3 ? search.replace(/s$/i, '') : search };
}

import type { OtherList } from '../tally/wish/guess';
import { sameWord, tokensOf, type Token } from './tokens';

/** Words that set one thing against another. */
const AGAINST = new Set(['against', 'with', 'versus', 'vs', 'to', 'beside']);

/**
 * The list that a wish names to set this one against, and the words without its name and the one before it.
 * @example otherListIn(tokensOf('fares by route against targets'), others) // { list: 'Targets', rest: fares by route }
 */
export function otherListIn(
  tokens: readonly Token[],
  others: readonly OtherList[],
): { readonly list: string | null; readonly rest: readonly Token[] } {
  // The longest name first: “Targets 2025” is not “Targets”.
  const named = others
    .map(({ name }) => ({ name, words: tokensOf(name).map(({ word }) => word) }))
    .filter(({ words }) => words.length > 0)
    .sort((a, b) => b.words.length - a.words.length);
  for (const [at, { word }] of tokens.entries()) {
    if (!AGAINST.has(word)) continue;
    for (const { name, words } of named) {
      const from = at + (tokens[at + 1]?.word === 'the' ? 2 : 1);
      if (words.every((own, k) => tokens[from + k] && sameWord(tokens[from + k].word, own)))
        return { list: name, rest: tokens.filter((_, k) => k < at || k >= from + words.length) };
    }
  }
  return { list: null, rest: tokens };
}

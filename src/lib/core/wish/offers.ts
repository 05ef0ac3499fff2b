import type { KeptBands } from '../arrange/bands';
import type { Condition } from '../selection/condition';
import { describeCondition } from '../selection/describe';
import { namesOf } from '../table/table';
import type { ListFacts } from '../tally/wish/guess';
import { guessOf, questionsOf } from '../tally/wish/guesses';
import { kindOf } from '../tally/kind/kinds';
import { refs } from '../tally/spec/refs';
import type { Tally } from '../tally/spec/specs';
import type { Wish } from '../tally/wish/wish';
import { fitOf, wishOf } from '../tally/wish/wishOf';
import { filtersIn } from './filters';
import { otherListIn } from './otherList';
import { leftover, notUnderstood } from './leftover';
import type { ListWords } from './listWords';
import { respelled, type Respelling } from './respelled';
import { SMALL_WORDS } from './smallWords';
import { tokensOf } from './tokens';

/** A tally that a wish may mean. */
export interface Offer {
  readonly kind: Tally['kind'];
  readonly question: string;
  readonly sentence: string;
  readonly tally: Tally;
  /** What is wished for besides the tally itself. */
  readonly wish: Wish;
  /** What narrows to the records that were asked of, and the same in words. */
  readonly narrow: readonly Condition[];
  readonly narrowWords: readonly string[];
  /** Words that were not understood, as they were typed and in their order. */
  readonly left: readonly string[];
  /** Words that were taken for others, which are near. */
  readonly taken: readonly Respelling[];
}

/**
 * What a wish narrows to where it says nothing else; none where a word is left that is no small one.
 * @example narrowingIn('delay is unread', words) // [{ kind: 'leaf', column: 'delay', test: { test: 'unread' } }]
 */
export function narrowingIn(typed: string, words: ListWords): readonly Condition[] {
  const { conditions, rest } = filtersIn(tokensOf(typed), words);
  return rest.every(({ word }) => SMALL_WORDS.has(word)) ? conditions : [];
}

/**
 * The tallies that a wish may mean, those that leave fewest of its words first. Every word of it is in the
 * tally, narrows to records, is a small one, or is told in `left`.
 * @param kept band tables by the names they are kept under
 * @example offersFor('fares by route without gale', words, facts, 'Sailings', [])[0].left // []
 */
export function offersFor(
  typed: string,
  words: ListWords,
  facts: ListFacts,
  listName: string,
  kept: readonly KeptBands[],
): Offer[] {
  const offers = offersOf(typed, words, facts, listName, kept);
  const left = offers[0]?.left ?? tokensOf(typed).map(({ text }) => text);
  const near = left.length > 0 ? respelled(typed, left, words) : null;
  if (!near) return offers;
  const others = offersOf(near.typed, words, facts, listName, kept);
  // A word is taken for another only where more is understood then.
  if (others.length === 0 || (offers[0] && others[0].left.length >= offers[0].left.length))
    return offers;
  return others.map((offer) => asTyped(offer, near.taken));
}

/** What was not understood all the same is told as it was typed, and was taken for nothing. */
function asTyped(offer: Offer, taken: readonly Respelling[]): Offer {
  const isLeft = ({ takenFor }: Respelling): boolean =>
    offer.left.some((part) => part.split(' ').includes(takenFor));
  const own = new Map(taken.map(({ typed, takenFor }) => [takenFor, typed]));
  return {
    ...offer,
    left: offer.left.map((part) =>
      part
        .split(' ')
        .map((word) => own.get(word) ?? word)
        .join(' '),
    ),
    taken: taken.filter((word) => !isLeft(word)),
  };
}

function offersOf(
  typed: string,
  words: ListWords,
  facts: ListFacts,
  listName: string,
  kept: readonly KeptBands[],
): Offer[] {
  const other = otherListIn(tokensOf(typed), facts.others ?? []);
  const { conditions, rest } = filtersIn(other.rest, words);
  const { columns } = words.table;
  const names = namesOf(words.table);
  const text = rest
    .map(({ text: own, afterComma }, k) => (afterComma && k > 0 ? `, ${own}` : ` ${own}`))
    .join('')
    // “top 2 vessels in each route” ranks anew in each.
    .replace(/\bin each\b/gi, 'within')
    .trim();
  // Words that only narrow begin no tally: none was asked for.
  if (other.list === null && rest.every(({ word }) => SMALL_WORDS.has(word))) return [];
  const said = wishOf(text, columns, kept) ?? (conditions.length > 0 ? {} : null);
  const wish = other.list === null ? said : { ...said, against: other.list };
  if (!wish) return [];
  const narrowWords = conditions.map((condition) => describeCondition(condition, names));
  return questionsOf(facts, wish)
    .map((asked) => ({ ...asked, fit: fitOf(text, asked, columns) }))
    .sort((a, b) => b.fit - a.fit)
    .flatMap(({ kind, question, found, guess }): Offer[] => {
      if (!('tally' in guess)) return [];
      const { tally } = guess;
      const left = [
        ...notUnderstood(rest, leftover(rest, tally, columns, found, listName)),
        ...(other.list !== null && !againstSaid(tally, other.list) ? [other.list] : []),
      ];
      const sentence = kindOf(tally).plain(names, listName);
      return [
        { kind, question, sentence, tally, wish, narrow: conditions, narrowWords, left, taken: [] },
      ];
    })
    .sort((a, b) => a.left.length - b.left.length || invented(a) - invented(b));
}

/** Whether a tally looks at a list that was named. */
const againstSaid = (tally: Tally, list: string): boolean =>
  refs(tally).lists.some(({ to }) => to === list);

/** Whether an offer holds what nobody wished for: it stands behind those that hold only what was. */
const invented = ({ kind, wish }: Offer): number => Number(guessOf(kind).invents?.(wish) ?? false);

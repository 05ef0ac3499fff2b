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
import { otherListIn } from './otherList';
import type { ListWords } from './listWords';
import type { Phrase } from './phrase';
import { readAs, type ReadAs } from './readAs';
import { readingsOf, type Reading } from './reading';
import { respelled, type Respelling } from './respelled';
import { tokensOf, type Token } from './tokens';
import { asTexts, unsaid } from './unsaid';

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
  /** Word by word what it was read as. */
  readonly read: readonly ReadAs[];
  /** Words that were taken for others, which are near. */
  readonly taken: readonly Respelling[];
}

/**
 * What a wish narrows to where it says nothing else; none where a word is left that is no small one.
 * @example narrowingIn('delay is unread', words) // [{ kind: 'leaf', column: 'delay', test: { test: 'unread' } }]
 */
export function narrowingIn(typed: string, words: ListWords): readonly Condition[] {
  const tokens = tokensOf(typed);
  if (tokens.length === 0) return [];
  const [{ narrow, asks, phrases }] = readingsOf({ tokens, words, listName: '', kept: [] });
  const read = phrases.reduce((sum, { from, to }) => sum + to - from, 0);
  return asks || read < tokens.length ? [] : narrow;
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
  if (offers.length === 0 && narrowingIn(typed, words).length > 0) return [];
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
  const tokens = other.rest;
  const readings = readingsOf({ tokens, words, listName, kept });
  const offers = readings
    // Words that only narrow begin no tally: none was asked for.
    .filter(({ asks, counts }) => asks || counts || other.list !== null)
    .map((reading) => offersOfReading(tokens, reading, other.list, words, facts, listName));
  const [first = [], ...choices] = offers;
  // What the same words could mean as well stands right behind the likeliest.
  const others = choices.flatMap(([best]) =>
    best && best.left.length <= (first[0]?.left.length ?? 0) ? best : [],
  );
  return [...first.slice(0, 1), ...others, ...first.slice(1)];
}

function offersOfReading(
  tokens: readonly Token[],
  { wish: said, narrow, phrases }: Reading,
  otherList: string | null,
  words: ListWords,
  facts: ListFacts,
  listName: string,
): Offer[] {
  const names = namesOf(words.table);
  const wish = otherList === null ? said : { ...said, against: otherList };
  const narrowWords = narrow.map((condition) => describeCondition(condition, names));
  return questionsOf(facts, wish)
    .map((asked) => ({ ...asked, fit: fitOf(phrases, asked) }))
    .sort((a, b) => b.fit - a.fit)
    .flatMap(({ kind, question, guess }): { offer: Offer; lost: number }[] => {
      if (!('tally' in guess)) return [];
      const { tally } = guess;
      const lost = unsaid(tokens, phrases, tally);
      const against = otherList !== null && !againstSaid(tally, otherList) ? [otherList] : [];
      const left = [...asTexts(tokens, lost), ...against];
      const sentence = kindOf(tally).plain(names, listName);
      const read = readAs(tokens, phrases, lost, names);
      const offer = {
        kind,
        question,
        sentence,
        tally,
        wish,
        narrow,
        narrowWords,
        left,
        read,
        taken: [],
      };
      return [{ offer, lost: lost.length + against.length }];
    })
    .sort((a, b) => a.lost - b.lost || invented(a.offer) - invented(b.offer))
    .map(({ offer }) => offer);
}

/** How well a question fits a wish: before all where the wish can hardly mean another, then by the words that name it. */
const fitOf = (
  phrases: readonly Phrase[],
  { kind, meant }: { kind: Tally['kind']; meant: boolean },
): number =>
  2 * phrases.filter(({ part }) => part.is === 'asks' && part.kinds.includes(kind)).length +
  // “fares by month” is a rollup, unless another question is named.
  Number(
    kind === 'periods' &&
      phrases.some(({ part }) => part.is === 'period' && part.period !== 'weekday'),
  ) +
  (meant ? 100 : 0);

/** Whether a tally looks at a list that was named. */
const againstSaid = (tally: Tally, list: string): boolean =>
  refs(tally).lists.some(({ to }) => to === list);

/** Whether an offer holds what nobody wished for: it stands behind those that hold only what was. */
const invented = ({ kind, wish }: Offer): number => Number(guessOf(kind).invents?.(wish) ?? false);

import { listedParts, type Part, type Slot } from './sentence';

/** A place at the end of a sentence, whether its value goes without saying, and the words before it. */
export interface Option<Spec> {
  readonly slot: Slot<Spec>;
  readonly usual: boolean;
  readonly before?: string;
}

/** A place for whatever goes without saying. */
export const moreSlot = <Spec>(slots: readonly Slot<Spec>[]): Slot<Spec> => ({
  path: 'more',
  words: 'more…',
  add: true,
  takes: { a: 'more', slots },
});

/**
 * The end of a sentence: what is not at its usual value is said, the rest waits under `more…`.
 * @param adds empty places that stand behind the full stop
 */
export function optionalParts<Spec>(
  options: readonly Option<Spec>[],
  adds: readonly Slot<Spec>[] = [],
): Part<Spec>[] {
  const waiting = options.filter((o) => o.usual).map((o) => o.slot);
  return [
    ...options
      .filter((o) => !o.usual)
      .flatMap(({ slot, before = ', ' }): Part<Spec>[] => [before, slot]),
    '. ',
    ...adds.flatMap((slot): Part<Spec>[] => [slot, ' ']),
    ...(waiting.length ? [moreSlot(waiting)] : []),
  ];
}

/** Members of a long run that are shown one by one; the others fold into one word. */
const SHOWN_OF_RUN = 4;
const LONGEST_RUN = 6;

/** `sum of A, sum of B, sum of C, sum of D and 8 more`: a long run folds, each member still a place. */
export function foldedRun<Spec>(slots: readonly Slot<Spec>[]): Part<Spec>[] {
  if (slots.length <= LONGEST_RUN) return listedParts(slots);
  const rest = slots.slice(SHOWN_OF_RUN);
  return listedParts([
    ...slots.slice(0, SHOWN_OF_RUN),
    {
      path: `${rest[0].path} more`,
      words: `${rest.length} more`,
      name: 'The others of this run',
      takes: { a: 'more', slots: rest },
    },
  ]);
}

import type { GroupKey } from '../arrange/groupKey';
import type { SortKey } from '../arrange/sortKey';
import type { Measure } from '../measure/measure';

/** What may stand at a place of a sentence, what stands there, and the spec with something else there. */
export type Takes<Spec> =
  | {
      readonly a: 'key';
      readonly value: GroupKey | null;
      /** Columns that other keys have already. */
      readonly taken: readonly string[];
      /** Measures that groups can be ordered by. */
      readonly measures: readonly Measure[];
      /** Which of the tally's keys it is, from 0. */
      readonly level: number;
      set(value: GroupKey | null): Spec;
    }
  | { readonly a: 'sort'; readonly value: SortKey | null; set(value: SortKey | null): Spec }
  | { readonly a: 'measure'; readonly value: Measure | null; set(value: Measure | null): Spec };

/** A marked word: a place of the spec. */
export interface Slot<Spec> {
  /** Where it stands in the spec: `groups[1]`. A fault with this path shows here. */
  readonly path: string;
  readonly words: string;
  /** An empty place at which something can be added: `then…`. The plain sentence leaves it out. */
  readonly add?: boolean;
  readonly takes: Takes<Spec>;
}

/** A sentence is plain words and marked words in turn. */
export type Part<Spec> = string | Slot<Spec>;

/** The sentence without its marks: caption, report, command line. */
export const plainSentence = (parts: readonly Part<unknown>[]): string =>
  parts
    .map((part) => (typeof part === 'string' ? part : part.add ? '' : part.words))
    .join('')
    .replace(/ +/g, ' ')
    .replace(/ ([.,:])/g, '$1')
    .trim();

/** Parts with words between them: `a`, `a and b`, `a, b and c`. */
export function listedParts<Spec>(
  items: readonly Part<Spec>[],
  between = ', ',
  last = ' and ',
): Part<Spec>[] {
  return items.flatMap((item, k): Part<Spec>[] =>
    k === 0 ? [item] : [k === items.length - 1 ? last : between, item],
  );
}

/** A list with another member, one fewer (null), or one changed, at a place. */
export const replacedAt = <T>(items: readonly T[], at: number, item: T | null): T[] =>
  item === null
    ? items.filter((_, k) => k !== at)
    : at < items.length
      ? items.map((old, k) => (k === at ? item : old))
      : [...items, item];

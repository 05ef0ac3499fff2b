import type { CalendarPeriod } from '../../table/period';
import type { Bands } from '../../arrange/bands';
import type { GroupKey } from '../../arrange/groupKey';
import type { SortKey } from '../../arrange/sortKey';
import type { Measure } from '../../measure/measure';
import type { Condition } from '../../selection/condition';
import type { ColumnType } from '../../table/column';

/** One of several things that may stand at a place. */
export interface Choice {
  readonly value: string;
  readonly label: string;
  readonly note?: string;
}

/**
 * What may stand at a place of a sentence, what stands there, and the spec with something else
 * there. `null` takes the part out; where a part is `needed` it cannot be.
 */
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
      readonly needed?: boolean;
      set(value: GroupKey | null): Spec;
    }
  | { readonly a: 'sort'; readonly value: SortKey | null; set(value: SortKey | null): Spec }
  | {
      readonly a: 'measure';
      readonly value: Measure | null;
      readonly needed?: boolean;
      set(value: Measure | null): Spec;
    }
  | {
      readonly a: 'column';
      readonly value: string | null;
      readonly types: readonly ColumnType[];
      readonly needed?: boolean;
      set(value: string | null): Spec;
    }
  | {
      readonly a: 'number';
      readonly value: number | null;
      readonly least: number;
      readonly most: number;
      /** Whole numbers only. */
      readonly whole: boolean;
      readonly needed?: boolean;
      set(value: number | null): Spec;
    }
  | {
      readonly a: 'numbers';
      readonly value: readonly number[];
      readonly least: number;
      readonly most: number;
      /** Runs of numbers that are often wanted. */
      readonly usual: readonly { readonly label: string; readonly values: readonly number[] }[];
      set(value: number[]): Spec;
    }
  | {
      readonly a: 'choice';
      readonly value: string;
      readonly choices: readonly Choice[];
      set(value: string): Spec;
    }
  | {
      readonly a: 'several';
      readonly value: readonly string[];
      readonly choices: readonly Choice[];
      /** How many must stay. */
      readonly least: number;
      set(value: readonly string[]): Spec;
    }
  | {
      readonly a: 'condition';
      readonly value: Condition | null;
      /** The name its row or column goes by; null where it has none. */
      readonly name: string | null;
      readonly needed?: boolean;
      set(value: Condition | null, name: string | null): Spec;
    }
  | {
      readonly a: 'bands';
      readonly value: Bands | null;
      /** The column that is cut into bands. */
      readonly column: string;
      set(value: Bands | null): Spec;
    }
  /** A period of a kind, by its name (`2024-Q2`) or by a day in it. */
  | {
      readonly a: 'date';
      readonly value: string | null;
      readonly period: CalendarPeriod;
      set(value: string | null): Spec;
    }
  | { readonly a: 'text'; readonly value: string; set(value: string): Spec }
  /** One of the values of a column, as groups are called. */
  | {
      readonly a: 'label';
      readonly value: string;
      readonly column: string;
      set(value: string): Spec;
    }
  /** Another list, or a reading of this one unless `lists`, by the name the bench gives it. */
  | {
      readonly a: 'list';
      readonly value: string;
      readonly lists?: boolean;
      /** What '' means, where it may be chosen. */
      readonly none?: string;
      set(value: string): Spec;
    }
  /** Something that is done at once. */
  | { readonly a: 'act'; set(): Spec }
  /** Places whose usual value goes without saying. */
  | { readonly a: 'more'; readonly slots: readonly Slot<Spec>[] };

/** A marked word: a place of the spec. */
export interface Slot<Spec> {
  /** Where it stands in the spec: `groups[1]`. A fault with this path shows here. */
  readonly path: string;
  readonly words: string;
  /** An empty place at which something can be added: `then…`. The plain sentence leaves it out. */
  readonly add?: boolean;
  /** What the place is called, where its words alone do not say it: `first place`. */
  readonly name?: string;
  /** Whose columns it chooses among, where they are not the list's: the results of an inner tally. */
  readonly ofInner?: boolean;
  /** The list whose columns it chooses among, by the name the bench gives it, where it is another. */
  readonly ofList?: string;
  readonly takes: Takes<Spec>;
  /** Other places that what stands here can be moved to. */
  readonly moves?: readonly Move<Spec>[];
}

/** What stands at a place, taken to another: dropped on its word, or by the act of this name. */
export interface Move<Spec> {
  /** The path of the place. */
  readonly onto: string;
  readonly words: string;
  /** Not among the acts of the menu: one of many, of which those to the nearest places are. */
  readonly far?: boolean;
  set(): Spec;
}

/** A sentence is plain words and marked words in turn. */
export type Part<Spec> = string | Slot<Spec>;

/** The sentence without its marks: caption, report, command line. */
export const plainSentence = (parts: readonly Part<unknown>[]): string =>
  parts
    .map((part) => (typeof part === 'string' ? part : part.add ? '' : part.words))
    .join('')
    .replace(/ +/g, ' ')
    .replace(/ ([.,:;])/g, '$1')
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

/** A list with an item taken to another's place; those between move up or down by one. */
export const movedTo = <T>(items: readonly T[], from: number, to: number): T[] => {
  const rest = items.filter((_, k) => k !== from);
  return [...rest.slice(0, to), items[from], ...rest.slice(to)];
};

/** A capital at the beginning. */
export function begun<Spec>(parts: readonly Part<Spec>[]): Part<Spec>[] {
  const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
  return parts.map((part, k): Part<Spec> => {
    if (k > 0) return part;
    return typeof part === 'string' ? capital(part) : { ...part, words: capital(part.words) };
  });
}

/** The sentence of a tally inside another: the same places, each a place of the outer spec. */
export function lifted<Inner, Outer>(
  parts: readonly Part<Inner>[],
  path: string,
  put: (inner: Inner) => Outer,
  ofInner = false,
): Part<Outer>[] {
  const lift = (slot: Slot<Inner>): Slot<Outer> => {
    const { takes } = slot;
    const { moves, ...own } = slot;
    const under = (place: string): string => (path === '' ? place : `${path}.${place}`);
    const of = {
      ...own,
      path: under(slot.path),
      ...(ofInner && { ofInner }),
      ...(moves && {
        moves: moves.map((move) => ({
          ...move,
          onto: under(move.onto),
          set: () => put(move.set()),
        })),
      }),
    };
    return takes.a === 'more'
      ? { ...of, takes: { ...takes, slots: takes.slots.map(lift) } }
      : { ...of, takes: { ...takes, set: (...value: never[]) => put(call(takes.set, value)) } };
  };
  return parts.map((part) => (typeof part === 'string' ? part : lift(part)));
}

/** Calls a setter of whatever place with the value that its own menu gives. */
const call = <Spec>(set: (...value: never[]) => Spec, value: never[]): Spec => set(...value);

/** Every marked word, those under `more…` too. */
export const slotsOf = <Spec>(parts: readonly Part<Spec>[]): Slot<Spec>[] =>
  parts.flatMap((part) => {
    if (typeof part === 'string') return [];
    return part.takes.a === 'more' ? [part, ...part.takes.slots] : [part];
  });

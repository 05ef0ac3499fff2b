import type { Bands } from '../../arrange/bands';
import type { GroupKey } from '../../arrange/groupKey';
import type { Measure } from '../../measure/measure';
import type { Condition } from '../../selection/condition';
import { describeCondition } from '../../selection/describe';
import type { ColumnType } from '../../table/column';
import { givenNumber, listed } from '../../table/format';
import type { Names } from '../kind/kind';
import { ScopeName } from '../answer/result';
import type { Option } from './optionalParts';
import { movedTo, replacedAt, type Choice, type Move, type Slot } from './sentence';
import { bandsWords, groupWords, measurePhrase, nameOf, SCOPE_WORDS } from './words';

/*
 * Places of sentences, each sort made in one place. `set` gives the spec with another value there;
 * what a kind hands in knows only its own spec.
 */

/** A key that must stay, or (null) an empty place for one more. */
export const keySlot = <Spec>(
  path: string,
  value: GroupKey | null,
  names: Names,
  set: (key: GroupKey | null) => Spec,
  {
    taken = [],
    measures = [],
    level = 0,
    needed = false,
    empty = 'for each…',
    words = groupWords,
  }: {
    taken?: readonly string[];
    measures?: readonly Measure[];
    level?: number;
    needed?: boolean;
    empty?: string;
    words?: (key: GroupKey, names: Names) => string;
  } = {},
): Slot<Spec> => ({
  path,
  words: value ? words(value, names) : empty,
  ...(value === null && { add: true }),
  takes: { a: 'key', value, taken, measures, level, ...(needed && { needed }), set },
});

/** The keys of a list in turn, and an empty place for one more. */
export function keySlots<Spec>(
  path: string,
  keys: readonly GroupKey[],
  names: Names,
  set: (keys: GroupKey[]) => Spec,
  about: { taken?: readonly string[]; measures?: readonly Measure[]; empty: string; least: number },
): { slots: Slot<Spec>[]; add: Slot<Spec> } {
  const slot = (key: GroupKey | null, k: number): Slot<Spec> =>
    keySlot(`${path}[${k}]`, key, names, (next) => set(replacedAt(keys, k, next)), {
      taken: about.taken ?? keys.map((g) => g.column),
      measures: about.measures ?? [],
      level: k,
      needed: keys.length <= about.least,
      empty: about.empty,
    });
  return {
    slots: withMoves(keys.map(slot), path, keys, (key) => groupWords(key, names), set),
    add: slot(null, keys.length),
  };
}

/** Places of a list, each with the others of it that what stands there can be moved to. */
export const withMoves = <Spec, T>(
  slots: readonly Slot<Spec>[],
  path: string,
  items: readonly T[],
  words: (item: T) => string,
  set: (items: T[]) => Spec,
): Slot<Spec>[] =>
  slots.map((slot, k) => ({
    ...slot,
    moves: items.flatMap((other, to): Move<Spec>[] =>
      to === k
        ? []
        : [
            {
              onto: `${path}[${to}]`,
              words: `Put ${to < k ? 'before' : 'behind'} ${words(other)}`,
              ...(Math.abs(to - k) > 1 && { far: true }),
              set: () => set(movedTo(items, k, to)),
            },
          ],
    ),
  }));

export const measureSlot = <Spec>(
  path: string,
  value: Measure | null,
  names: Names,
  set: (measure: Measure | null) => Spec,
  { needed = false, empty = 'and…' } = {},
): Slot<Spec> => ({
  path,
  words: value ? measurePhrase(value, names) : empty,
  ...(value === null && { add: true }),
  takes: { a: 'measure', value, ...(needed && { needed }), set },
});

/** The measures of a list in turn, and an empty place for one more. */
export function measureSlots<Spec>(
  path: string,
  measures: readonly Measure[],
  names: Names,
  set: (measures: Measure[]) => Spec,
  least = 0,
): { slots: Slot<Spec>[]; add: Slot<Spec> } {
  const slot = (measure: Measure | null, k: number): Slot<Spec> =>
    measureSlot(`${path}[${k}]`, measure, names, (next) => set(replacedAt(measures, k, next)), {
      needed: measures.length <= least,
    });
  return {
    slots: withMoves(measures.map(slot), path, measures, (m) => measurePhrase(m, names), set),
    add: slot(null, measures.length),
  };
}

export const columnSlot = <Spec>(
  path: string,
  value: string | null,
  names: Names,
  types: readonly ColumnType[],
  set: (column: string | null) => Spec,
  { needed = false, empty = 'and…' } = {},
): Slot<Spec> => ({
  path,
  words: value === null ? empty : nameOf(names, value),
  ...(value === null && { add: true }),
  takes: { a: 'column', value, types, ...(needed && { needed }), set },
});

/** One of several choices; the words are the choice's own unless others are given. */
export function choiceSlot<Spec, V extends string>(
  path: string,
  name: string,
  value: V,
  choices: readonly (Choice & { readonly value: V })[],
  set: (value: V) => Spec,
  words?: string,
): Slot<Spec> {
  const chosen = choices.find((c) => c.value === value);
  return {
    path,
    name,
    words: words ?? chosen?.label ?? value,
    takes: {
      a: 'choice',
      value,
      choices,
      set: (next) => set(choices.find((c) => c.value === next)?.value ?? value),
    },
  };
}

/** A text that is typed. */
export const textSlot = <Spec>(
  path: string,
  name: string,
  value: string,
  set: (text: string) => Spec,
  words = value,
): Slot<Spec> => ({ path, name, words, takes: { a: 'text', value, set } });

/** What the list as it stands is called beside its earlier readings. */
export const THIS_READING = 'this reading';

/** Another list, or an older reading. */
export const listSlot = <Spec>(
  path: string,
  name: string,
  value: string,
  set: (list: string) => Spec,
  { lists = false } = {},
): Slot<Spec> => ({
  path,
  name,
  words: value || (lists ? 'another list…' : 'another reading…'),
  takes: { a: 'list', value, ...(lists && { lists }), set },
});

/** The newer of two readings: the list as it stands, unless another is chosen. */
export const newerSlot = <Spec>(
  path: string,
  value: string | undefined,
  set: (list: string | undefined) => Spec,
): Slot<Spec> => ({
  path,
  name: 'The newer reading',
  words: value ?? THIS_READING,
  takes: {
    a: 'list',
    value: value ?? '',
    none: THIS_READING,
    set: (list) => set(list || undefined),
  },
});

/** One of the groups of a key, by its label. */
export const labelSlot = <Spec>(
  path: string,
  name: string,
  value: string,
  column: string,
  set: (label: string) => Spec,
): Slot<Spec> => ({
  path,
  name,
  words: value || 'a group…',
  takes: { a: 'label', value, column, set },
});

/** Something that is done or is not. */
export const toggleSlot = <Spec>(
  path: string,
  label: string,
  on: boolean,
  set: (on: boolean) => Spec,
): Slot<Spec> =>
  choiceSlot(
    path,
    label,
    on ? 'yes' : 'no',
    [
      { value: 'yes', label: `with ${label}` },
      { value: 'no', label: `without ${label}` },
    ],
    (value) => set(value === 'yes'),
    label,
  );

export const numberSlot = <Spec>(
  path: string,
  words: string,
  value: number | null,
  range: { least: number; most: number; whole?: boolean; needed?: boolean; name?: string },
  set: (value: number | null) => Spec,
): Slot<Spec> => ({
  path,
  words,
  ...(range.name !== undefined && { name: range.name }),
  takes: {
    a: 'number',
    value,
    least: range.least,
    most: range.most,
    whole: range.whole ?? false,
    ...(range.needed && { needed: true }),
    set,
  },
});

/** Several of a set of choices, in the order of the choices. */
export function severalSlot<Spec, V extends string>(
  path: string,
  name: string,
  value: readonly V[],
  choices: readonly (Choice & { readonly value: V })[],
  set: (values: V[]) => Spec,
  { least = 0, words }: { least?: number; words?: string } = {},
): Slot<Spec> {
  const chosen = choices.filter((c) => value.includes(c.value));
  return {
    path,
    name,
    words: words ?? listed(chosen.map((c) => c.label)),
    takes: {
      a: 'several',
      value,
      choices,
      least,
      set: (next) =>
        set(choices.filter((c) => next.some((n) => n === c.value)).map((c) => c.value)),
    },
  };
}

/** `10, 25 and 50` */
export const numbersWords = (values: readonly number[], most = 7): string =>
  listedShort(values.map(givenNumber), most);

/** Texts one after the other; of many the first ones, and how many more there are. */
export const listedShort = (texts: readonly string[], most = 7): string =>
  texts.length <= most
    ? listed(texts)
    : listed([...texts.slice(0, most - 2), `${texts.length - most + 2} more`]);

export const conditionSlot = <Spec>(
  path: string,
  value: Condition | null,
  name: string | null,
  names: Names,
  set: (condition: Condition | null, name: string | null) => Spec,
  { needed = false, empty = 'where…' } = {},
): Slot<Spec> => {
  const words = value ? describeCondition(value, names) : empty;
  return {
    path,
    words: value && name !== null && name !== '' && name !== words ? name : words,
    ...(value === null && { add: true }),
    takes: { a: 'condition', value, name, ...(needed && { needed }), set },
  };
};

export const bandsSlot = <Spec>(
  path: string,
  value: Bands | null,
  column: string,
  set: (bands: Bands | null) => Spec,
): Slot<Spec> => ({
  path,
  words: value ? bandsWords(value) : 'in bands…',
  name: 'Bands',
  takes: { a: 'bands', value, column, set },
});

/** Whose records: said where it is not simply those counted. */
export const scopeSlot = <Spec>(
  value: ScopeName,
  set: (scope: ScopeName) => Spec,
): Option<Spec> => ({
  before: ', from ',
  slot: choiceSlot(
    'scope',
    'Whose records',
    value,
    ScopeName.options.map((scope) => ({ value: scope, label: SCOPE_WORDS[scope] })),
    set,
  ),
  usual: value === 'counted',
});

/** Under how many records a figure is marked. */
export const fewSlot = <Spec>(few: number, set: (few: number) => Spec): Slot<Spec> =>
  numberSlot(
    'few',
    `figures on fewer than ${few} marked`,
    few,
    { least: 0, most: 1_000_000, whole: true, needed: true, name: 'Marked under' },
    (next) => set(next ?? few),
  );

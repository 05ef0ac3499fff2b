import type { Bands } from '../arrange/bands';
import type { GroupKey } from '../arrange/groupKey';
import type { Measure } from '../measure/measure';
import type { Condition } from '../scope/condition';
import { describeCondition } from '../scope/describe';
import { MONTHS, WEEKDAYS, dayOfIso } from '../table/calendar';
import type { ColumnType } from '../table/column';
import { showNumber } from '../table/format';
import {
  periodLabel,
  periodOf,
  USUAL_CALENDAR,
  type Calendar,
  type CalendarPeriod,
} from '../table/period';
import { listedWords, type Names } from './kind';
import type { ScopeName } from './result';
import { listedParts, replacedAt, type Choice, type Part, type Slot } from './sentence';
import { bandsWords, groupWords, measurePhrase, nameOf } from './words';

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
  return { slots: keys.map(slot), add: slot(null, keys.length) };
}

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
  return { slots: measures.map(slot), add: slot(null, measures.length) };
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
    words: words ?? listedWords(chosen.map((c) => c.label)),
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
export const numbersWords = (values: readonly number[], most = 7): string => {
  const texts = values.map((v) => showNumber(v));
  return texts.length <= most
    ? listedWords(texts)
    : listedWords([...texts.slice(0, most - 2), `${texts.length - most + 2} more`]);
};

export const conditionSlot = <Spec>(
  path: string,
  value: Condition | null,
  name: string | null,
  names: Names,
  set: (condition: Condition | null, name: string | null) => Spec,
  { needed = false, empty = 'where…' } = {},
): Slot<Spec> => {
  const says = value ? describeCondition(value, names) : empty;
  return {
    path,
    words: value && name !== null && name !== '' && name !== says ? name : says,
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

/** A period, named by a day in it. */
export const dateSlot = <Spec>(
  path: string,
  value: string | undefined,
  unset: string,
  set: (day: string | undefined) => Spec,
  within: { readonly period: CalendarPeriod; readonly calendar?: Calendar | undefined } = {
    period: 'day',
  },
): Slot<Spec> => ({
  path,
  words:
    value === undefined
      ? unset
      : periodLabel(
          periodOf(dayOfIso(value), within.period, within.calendar),
          within.period,
          within.calendar,
        ),
  takes: { a: 'date', value: value ?? null, set: (day) => set(day ?? undefined) },
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
    [
      { value: 'counted', label: 'the counted records' },
      { value: 'narrowed', label: 'the records before setting aside' },
      { value: 'all', label: 'all records' },
    ],
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

export const PERIOD_CHOICES: readonly { value: CalendarPeriod; label: string }[] = [
  { value: 'year', label: 'year' },
  { value: 'half', label: 'half-year' },
  { value: 'quarter', label: 'quarter' },
  { value: 'month', label: 'month' },
  { value: 'week', label: 'week' },
  { value: 'day', label: 'day' },
];

/** Where years and weeks begin; those at their usual value wait under `more…`. */
export function calendarSlots<Spec>(
  path: string,
  given: Calendar | undefined,
  set: (calendar: Calendar) => Spec,
): Option<Spec>[] {
  const calendar = given ?? USUAL_CALENDAR;
  const numbered = (items: readonly string[], before: string): { value: string; label: string }[] =>
    items.map((label, k) => ({ value: String(k + 1), label: `${before} ${label}` }));
  const slots = [
    {
      slot: choiceSlot(
        `${path}.yearStartsIn`,
        'Start of the year',
        String(calendar.yearStartsIn),
        numbered(MONTHS, 'years that start in'),
        (m) => set({ ...calendar, yearStartsIn: Number(m) }),
      ),
      usual: calendar.yearStartsIn === 1,
    },
    {
      slot: choiceSlot(
        `${path}.weekStartsOn`,
        'Start of the week',
        String(calendar.weekStartsOn),
        numbered(WEEKDAYS, 'weeks that start on'),
        (d) => set({ ...calendar, weekStartsOn: Number(d) }),
      ),
      usual: calendar.weekStartsOn === 1,
    },
  ];
  return [
    ...slots,
    {
      slot: choiceSlot(
        `${path}.yearNamedBy`,
        'Name of a year across two',
        calendar.yearNamedBy,
        [
          { value: 'start', label: 'years named by their start' },
          { value: 'end', label: 'years named by their end' },
        ],
        (by) => set({ ...calendar, yearNamedBy: by }),
      ),
      usual: calendar.yearNamedBy === 'start',
    },
  ];
}

/** A place for whatever goes without saying. */
export const moreSlot = <Spec>(slots: readonly Slot<Spec>[]): Slot<Spec> => ({
  path: 'more',
  words: 'more…',
  add: true,
  takes: { a: 'more', slots },
});

/** A place at the end of a sentence, whether its value goes without saying, and the words before it. */
export interface Option<Spec> {
  readonly slot: Slot<Spec>;
  readonly usual: boolean;
  readonly before?: string;
}

/**
 * The end of a sentence: what is not at its usual value is said, the rest waits under `more…`.
 * @param adds empty places that stand behind the full stop
 */
export function ending<Spec>(
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

import type { GroupKey } from '../../arrange/groupKey';
import { MEASURES, ofRecords, type Measure, type MeasureKind } from '../../measure/measure';
import type { ColumnType } from '../../table/column';
import { noFinerThan, type CalendarPeriod, type Period } from '../../table/period';
import type { Wish } from './wish';

/** What a first guess knows of a column. */
export interface ColumnFact {
  readonly id: string;
  readonly name: string;
  readonly type: ColumnType;
  readonly unit: string;
  /** Records with a value. */
  readonly values: number;
  /** Distinct values, counted up to some hundreds. */
  readonly distinct: number;
  readonly least: number;
  readonly most: number;
  /** Numbers that are worth a sum: neither years nor shares. */
  readonly adds: boolean;
  /** Dates: the period that each stands for; days, where they stand here and there. */
  readonly rhythm: CalendarPeriod;
}

/** Another list at hand, by the name a tally calls it. */
export interface OtherList {
  readonly name: string;
  readonly columns: readonly { readonly name: string; readonly type: ColumnType }[];
}

/** What first guesses look at: the facts of a list's columns. */
export interface ListFacts {
  readonly records: number;
  readonly columns: readonly ColumnFact[];
  /** Column whose total stands in What counts. */
  readonly lead: string | null;
  /** Columns that name a record together; none where no few do. */
  readonly recordKeys?: readonly string[];
  /** Names of other lists and readings at hand. */
  readonly lists: readonly string[];
  /** Lists of the shelf, with their columns; none where they are not known. */
  readonly others?: readonly OtherList[];
}

/** A tally to begin with, or what the list lacks for it. */
export type Guess<Spec> = { readonly tally: Spec } | { readonly needs: string };

/** The question a kind answers, and how it begins on a list. */
export interface FirstGuess<Spec> {
  /** As the analyst asks it: `How do the values fall?` */
  readonly question: string;
  /** Other words its card is found by. */
  readonly found: string;
  /** Words that name it in a wish, wherever they stand: `growth`, `what moved`. */
  readonly asks: readonly string[];
  /** How a column's panel offers it, for columns of these types; not there unless given. */
  readonly ofColumn?: { readonly words: string; readonly types: readonly ColumnType[] };
  /** Measures that it gives without naming them as measures of its spec. */
  measures?(spec: Spec): readonly MeasureKind[];
  /** Whether a wish can hardly mean anything else: "the next 12 months". */
  meant?(wish: Wish): boolean;
  /** Whether what it begins with holds parts that the wish did not name, for an example. */
  invents?(wish: Wish): boolean;
  guess(facts: ListFacts, wish: Wish): Guess<Spec>;
}

const plainKey = (column: string): GroupKey => ({
  column,
  loose: false,
  order: { by: 'label', descending: false },
});

const ofType = (facts: ListFacts, ...types: ColumnType[]): ColumnFact[] =>
  facts.columns.filter((c) => types.includes(c.type) && c.values > 0);

/** Columns whose values make groups that can be taken in: few, but more than one. Those wished come first. */
export function keysFor(facts: ListFacts, wish: Wish): GroupKey[] {
  const wished = (wish.by ?? []).flatMap((id) => facts.columns.filter((c) => c.id === id));
  const found = ofType(facts, 'text', 'yesno')
    .filter((c) => c.distinct > 1 && c.distinct <= 60 && c.distinct < facts.records)
    .sort((a, b) => Number(a.type === 'yesno') - Number(b.type === 'yesno'));
  const day = wish.weekday ? dateFor(facts, wish) : undefined;
  return [...new Set([...wished, ...(day ? [day] : []), ...found])].map((c) => ({
    ...keyOf(c, wish.weekday ? 'weekday' : wish.period),
    ...bandsAsked(c, wish),
  }));
}

/**
 * The band table that was named; bands of the width, or by the edges that were. Values beyond the first or the last edge
 * stand in bands of their own, which are open.
 */
export function bandsAsked(
  column: ColumnFact,
  { edges, table, width }: Wish,
): Pick<GroupKey, 'bands'> {
  if (column.type !== 'number') return {};
  if (table) return { bands: { by: 'table', ...table } };
  if (width !== undefined) return { bands: { by: 'width', width, origin: 0 } };
  if (!edges) return {};
  const [first, last] = [edges[0], edges[edges.length - 1]];
  const [under, over] = [column.least < first, column.most > last];
  if (!under && !over && edges.length > 1) return { bands: { by: 'edges', edges } };
  const bands = edges.slice(1).map((to, k) => ({ from: edges[k], to }));
  return {
    bands: {
      by: 'table',
      bands: [
        ...(under ? [{ from: null, to: first }] : []),
        ...bands,
        ...(over || bands.length === 0 ? [{ from: last, to: null }] : []),
      ],
    },
  };
}

/** How many of the keys were wished for; none, where the whole was asked of. */
export const wishedCount = ({ by = [], weekday }: Wish): number =>
  by.length + Number(weekday ?? false);

/** Groups that were asked for in so many words: none of a date, which a series has already. */
export const wishedKeys = (facts: ListFacts, wish: Wish): GroupKey[] =>
  (wish.by ?? []).flatMap((id) =>
    facts.columns
      .filter((c) => c.id === id && c.type !== 'date' && c.type !== 'datetime')
      .map((c) => keyOf(c)),
  );

/** A key on a column: dates by a period, numbers of many values in bands. */
export function keyOf(column: ColumnFact, period?: Period): GroupKey {
  const key = plainKey(column.id);
  if (column.type === 'text') return { ...key, loose: true };
  if (column.type === 'date' || column.type === 'datetime')
    return { ...key, period: period ?? periodFor(column) };
  if (column.type === 'number' && column.distinct > 20)
    return { ...key, bands: { by: 'number', count: 8, round: true } };
  return key;
}

/** Days (or milliseconds) of a column's dates. */
export const daysOf = ({ type, least, most }: ColumnFact): number =>
  (most - least) / (type === 'datetime' ? 86_400_000 : 1);

/** Days of each period, the shortest there are. */
const LEAST_DAYS: Readonly<Record<CalendarPeriod, number>> = {
  day: 1,
  week: 7,
  month: 28,
  quarter: 90,
  half: 181,
  year: 365,
};

/** How many groups a key makes, or some more. */
export function groupsOf({ columns }: ListFacts, { column: id, period, bands }: GroupKey): number {
  const column = columns.find((c) => c.id === id);
  if (!column) return 0;
  if (period === 'weekday') return 7;
  if (period) return Math.min(column.values, Math.floor(daysOf(column) / LEAST_DAYS[period]) + 2);
  return bands?.by === 'number' ? bands.count + 1 : column.distinct;
}

/** A period that gives a dozen groups or so. */
export function periodFor(date: ColumnFact): CalendarPeriod {
  const days = daysOf(date);
  const period = days > 365 * 2 ? 'year' : days > 200 ? 'quarter' : days > 45 ? 'month' : 'day';
  return noFinerThan(period, date.rhythm);
}

export const dateFor = (facts: ListFacts, wish: Wish): ColumnFact | undefined => {
  const dates = ofType(facts, 'date', 'datetime').filter((c) => c.distinct > 1);
  return dates.find((c) => c.id === wish.column || wish.by?.includes(c.id)) ?? dates[0];
};

/** The number column that a list is most likely about: the one wished, that with the lead, money, any that adds. */
export function numberFor(facts: ListFacts, wish: Wish): ColumnFact | undefined {
  const numbers = ofType(facts, 'number');
  return (
    numbers.find((c) => c.id === wish.column) ??
    numbers.find((c) => c.id === facts.lead) ??
    numbers.find((c) => /[£$€¥]/.test(c.unit)) ??
    numbers.find((c) => c.adds) ??
    numbers[0]
  );
}

/** A number whose spread says something: one that is measured rather than money, where there is one. */
export function spreadFor(facts: ListFacts, wish: Wish): ColumnFact | undefined {
  const numbers = ofType(facts, 'number').filter((c) => c.distinct > 2);
  return (
    numbers.find((c) => c.id === wish.column) ??
    numbers.find((c) => /^(min|h|s|km|m|°C|kg)$/.test(c.unit)) ??
    numberFor(facts, {}) ??
    numbers[0]
  );
}

/** The measure wished, or the sum of the list's number, or the count of records. */
export function measureFor(facts: ListFacts, wish: Wish): Measure {
  const { measure, per, less, column: of } = wish;
  if (of !== undefined && per !== undefined) {
    const kind = measure === 'weightedMean' ? measure : less ? 'difference' : 'ratio';
    return { kind, column: of, other: per };
  }
  if (measure && ofRecords(measure)) return { kind: measure };
  // Of which column values are counted nobody can guess.
  if (measure && of === undefined && MEASURES[measure].types.includes('text'))
    return { kind: 'records' };
  const wished = facts.columns.find((c) => c.id === wish.column);
  const column =
    wished && measure && MEASURES[measure].types.includes(wished.type)
      ? wished
      : numberFor(facts, wish);
  if (!column) return { kind: 'records' };
  const kind = measure && MEASURES[measure].types.includes(column.type) ? measure : undefined;
  return {
    kind: kind ?? (column.adds ? 'sum' : 'mean'),
    column: column.id,
    ...(kind === 'percentile' && { percent: wish.percents?.[0] ?? 90 }),
    ...(kind === 'trimmedMean' && { percent: 5 }),
  };
}

/** All that was wished; the one measure where no more was. */
export function measuresFor(facts: ListFacts, wish: Wish): Measure[] {
  const { measures = [], plain = [] } = wish;
  if (measures.length < 2) return [measureFor(facts, wish)];
  return measures.map((measure) => {
    const column = facts.columns.find((c) => c.id === measure.column);
    return column && plain.includes(column.id) && !column.adds
      ? { ...measure, kind: 'mean' }
      : measure;
  });
}

/** Figures on fewer records than this are few, in a list of so many. */
export const fewIn = ({ records }: Pick<ListFacts, 'records'>): number =>
  records < 200 ? 3 : records < 1000 ? 5 : 10;

/** What every first guess has. */
export const common = { scope: 'counted' } as const;

export const NEEDS = {
  group: 'It needs a column with a few values that come again, such as a place or a kind.',
  number: 'It needs a column of numbers.',
  date: 'It needs a column of dates, two different ones at least.',
} as const;

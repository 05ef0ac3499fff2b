import { MEASURES, type Measure, type MeasureKind } from '../measure/measure';
import type { Condition, Leaf, Test } from '../selection/condition';
import { CALENDAR_PERIODS, type CalendarPeriod } from '../table/period';
import type { Column } from '../table/column';
import type { Wish } from '../tally/wish/wish';
import { coverOf } from './cover';
import { columnPhrases, recordPhrases } from './phrases/columns';
import { bandPhrases, countPhrases } from './phrases/counts';
import { betweenPhrases, measurePhrases } from './phrases/measures';
import { narrowPhrases, spanPhrases, wherePhrases } from './phrases/narrowing';
import {
  againstPhrases,
  fixedPhrases,
  loosePhrases,
  periodPhrases,
  yearStartPhrases,
} from './phrases/questions';
import type { Part, Phrase, Phrases, Role, Typed } from './phrase';

/** What a wish says, word by word. */
export interface Reading {
  readonly wish: Wish;
  /** What narrows to the records that were asked of. */
  readonly narrow: readonly Condition[];
  /** Its phrases; the words between them were not understood. */
  readonly phrases: readonly Phrase[];
  /** Whether anything is asked, besides which records count; their number, where only they are named. */
  readonly asks: boolean;
  readonly counts: boolean;
}

/** All that some words can be read as. */
const ALL: readonly Phrases[] = [
  columnPhrases,
  recordPhrases,
  measurePhrases,
  betweenPhrases,
  countPhrases,
  bandPhrases,
  fixedPhrases,
  periodPhrases,
  againstPhrases,
  yearStartPhrases,
  narrowPhrases,
  wherePhrases,
  spanPhrases,
  loosePhrases,
];

/** Readings beside the best one: more are no choice. */
const MOST_CHOICES = 3;

/**
 * What was typed, read by one grammar: the phrases that use most of the words, then each of them read otherwise where the
 * same words say something else as well (a value of two columns, a time of a list with two dates).
 */
export function readingsOf(typed: Typed): Reading[] {
  const { tokens } = typed;
  const phrases = coverOf(
    tokens.length,
    tokens.map((_, at) => ALL.flatMap((of) => of(typed, at))),
  );
  const columns = typed.words.table.columns;
  const choices = phrases.flatMap((phrase, k) =>
    (phrase.others ?? []).map((part) => phrases.with(k, { ...phrase, part })),
  );
  return [phrases, ...choices.slice(0, MOST_CHOICES)].map((of) => readingOf(of, columns));
}

interface Placed {
  readonly column: Column;
  readonly role: Role;
  /** Measures named before it since the column before. */
  readonly kinds: readonly Extract<Part, { is: 'measure' }>[];
  /** What it stands to the column before. */
  readonly op: 'ratio' | 'difference' | null;
  /** Whether “per” stands before it. */
  readonly per: boolean;
}

function readingOf(phrases: readonly Phrase[], columns: readonly Column[]): Reading {
  const parts = phrases.map(({ part }) => part);
  const of = <K extends Part['is']>(is: K): Extract<Part, { is: K }>[] =>
    parts.filter((part): part is Extract<Part, { is: K }> => part.is === is);
  const { placed: named, loose, perRecord } = placesOf(phrases, columns);
  const narrow = of('narrow').flatMap(({ condition }) => rungsOf(condition));
  const beside = of('beside');
  narrow.push(...beside.map(({ condition }) => condition));
  const placed = withSubject(named, parts, narrow, columns);
  const wish = wishOf(parts, placed, loose, perRecord);
  const asks = parts.some(({ is }) => !NOTHING_ASKED.has(is));
  return { wish, narrow: valuesTogether(narrow), phrases, asks, counts: of('records').length > 0 };
}

/** Parts that ask for no figure. */
const NOTHING_ASKED: ReadonlySet<Part['is']> = new Set([
  'narrow',
  'small',
  'records',
  'role',
  'side',
  'which',
]);

/** “delay over 10 by vessel”: where nothing else is named that figures could be of, they are of the delays. */
function withSubject(
  placed: Placed[],
  parts: readonly Part[],
  narrow: readonly Condition[],
  columns: readonly Column[],
): Placed[] {
  const counts = parts.some(
    (part) => part.is === 'records' || (part.is === 'measure' && part.kind === 'records'),
  );
  if (counts || placed.some(({ column }) => column.type === 'number')) return placed;
  const column = columns.find(
    ({ id, type }) =>
      type === 'number' && narrow.some((own) => own.kind === 'leaf' && own.column === id),
  );
  const first = narrow.length > 0 && column && placed.every((p) => p.role !== 'what');
  return first ? [...placed, { column, role: 'what', kinds: [], op: null, per: false }] : placed;
}

/** Values of one column that are named here and there are any of them, not all at once. */
function valuesTogether(narrow: readonly Condition[]): Condition[] {
  const out: Condition[] = [];
  for (const condition of narrow) {
    const at = out.findIndex(
      (own) => isOneOf(own) && isOneOf(condition) && own.column === condition.column,
    );
    const [own, next] = [out[at] as Condition | undefined, condition];
    if (own && isOneOf(own) && isOneOf(next))
      out[at] = {
        ...own,
        test: { ...own.test, values: [...new Set([...own.test.values, ...next.test.values])] },
      };
    else out.push(condition);
  }
  return out;
}

type OneOf = Leaf & { readonly test: Extract<Test, { test: 'is' }> };

const isOneOf = (condition: Condition): condition is OneOf =>
  condition.kind === 'leaf' && condition.test.test === 'is' && !condition.not;

/** Each condition that must hold is a step of its own. */
const rungsOf = (condition: Condition): Condition[] =>
  condition.kind === 'all' && !condition.not ? condition.parts.flatMap(rungsOf) : [condition];

/** The columns that are named, each for what; and the measures behind the last, which no column follows. */
function placesOf(
  phrases: readonly Phrase[],
  columns: readonly Column[],
): { placed: Placed[]; loose: Extract<Part, { is: 'measure' }>[]; perRecord: boolean } {
  const placed: Placed[] = [];
  let role: Role = 'what';
  let kinds: Extract<Part, { is: 'measure' }>[] = [];
  let op: Placed['op'] = null;
  let per = false;
  let perRecord = false;
  let before: Part | null = null;
  for (const { part } of phrases) {
    // “by technician starts with b”: the groups as well as what narrows them.
    const grouped =
      before?.is === 'role' && part.is === 'narrow' && part.condition.kind === 'leaf'
        ? part.condition.column
        : null;
    const own = columns.find(({ id }) => id === grouped);
    if (own && !placed.some((p) => p.column === own))
      placed.push({ column: own, role, kinds: [], op: null, per: false });
    before = part;
    if (part.is === 'role') role = part.role;
    else if (part.is === 'across') role = 'by';
    else if (part.is === 'measure') {
      kinds.push(part);
      // “by vessel, mean delay”: another figure begins.
      if (role === 'by' && placed.some((p) => p.role === 'by')) role = 'what';
    } else if (part.is === 'between') op = part.op;
    else if (part.is === 'where' || part.is === 'ahead') role = 'what';
    else if (part.is === 'records') perRecord ||= per;
    else if (part.is === 'column') {
      const column = columns.find(({ id }) => id === part.column);
      if (!column || placed.some((p) => p.column === column)) continue;
      // “average … by vessel”: the measure is of what comes later, or of what a condition is on.
      const measured = role === 'what' || column.type === 'number';
      placed.push({ column, role, kinds: measured ? kinds : [], op, per });
      if (measured) kinds = [];
      if (placed.length > 1) op = null;
    }
    if (part.is !== 'small') per = part.is === 'role' && part.per === true;
  }
  return { placed, loose: kinds, perRecord };
}

const isNumber = ({ column }: Placed): boolean => column.type === 'number';

/** A column that no number is, and that a measure is of all the same: the latest day, distinct names. */
const isOf = ({ column, kinds, role }: Placed): boolean =>
  role === 'what' &&
  column.type !== 'number' &&
  kinds.some(({ kind }) => kind !== 'records' && MEASURES[kind].types.includes(column.type));

function wishOf(
  parts: readonly Part[],
  placed: readonly Placed[],
  loose: readonly Extract<Part, { is: 'measure' }>[],
  perRecord: boolean,
): Wish {
  const of = <K extends Part['is']>(is: K): Extract<Part, { is: K }>[] =>
    parts.filter((part): part is Extract<Part, { is: K }> => part.is === is);
  const has = (is: Part['is']): boolean => parts.some((part) => part.is === is);
  const [what, by, within, each] = (['what', 'by', 'within', 'each'] as const).map((role) =>
    placed.filter((p) => p.role === role),
  );
  const ends = of('count').at(0);
  const order = ends?.of ?? of('order').at(0)?.of ?? whichEnd(parts);
  const best = has('best') || (has('which') && order === 'highest');
  const subject = what.find((p) => isNumber(p) || isOf(p));
  // “rank vessels by fares”: the number is what they are ranked by, the vessels are the groups.
  const ranked = subject ? undefined : [...by, ...each].find(isNumber);
  const number = subject ?? ranked;
  const inBands = has('bands') || has('width') || has('edges') || has('table');
  const divisor = placed.find((p) => p !== number && isNumber(p) && (p.per || p.op !== null));
  const weights =
    number?.kinds.some(({ kind }) => kind === 'weightedMean') === true
      ? placed.find((p) => p !== number && isNumber(p))
      : undefined;
  const other = number ? (divisor ?? weights) : undefined;
  const figured = new Set([number, other, ...what.filter((p) => isNumber(p) || isOf(p))]);
  // “fares by vessel for each route”: the routes are around the vessels.
  const groups = [...within, ...each, ...what, ...by].filter((p) => !figured.has(p));
  // “fares in bands by route”: the bands are groups within the routes, and records are counted.
  if (inBands && number && groups.length > 0 && what.filter(isNumber).length < 2) {
    const rest = parts.map((part): Part => (part.is === 'bands' ? { is: 'small' } : part));
    const alone = placed.filter((p) => p !== number);
    const counted = wishOf(rest, alone, COUNT, false);
    return { ...counted, by: [...(counted.by ?? []), number.column.id].slice(0, 6) };
  }
  const measures = measuresIn(what, loose, other);
  const named = (kinds: Placed['kinds']): boolean => kinds.some(({ kind }) => kind !== 'records');
  const numbers = what.filter((p) => isNumber(p) && p !== other);
  const plain = numbers.filter((p) => !named(p.kinds) && !(p === numbers.at(-1) && named(loose)));
  const counts = parts.some((part) => part.is === 'measure' && part.kind === 'records');
  const measured = number?.kinds.find(({ kind }) => kind !== 'records') ?? loose.at(0);
  // “fares per sailing” is what a record comes to.
  const one = measured?.kind ?? (perRecord && number ? 'mean' : undefined);
  const measure = measureOf(one, other, counts && !number);
  const periods = CALENDAR_PERIODS.filter((period) =>
    of('period').some((p) => p.period === period),
  );
  const across = of('beside').at(0)?.period;
  const percents = [
    ...of('percent').map(({ value }) => value),
    ...of('measure').flatMap(({ percent }) => percent ?? []),
  ];
  const stands = of('stands').map(({ value }) => value);
  const conditions = of('where').map(({ condition }) => condition);
  const grouped = groups.length > 0 || of('period').length > 0;
  const records =
    number === undefined && measure === undefined && !has('often') && (has('records') || grouped);
  const calendar = (period: string | undefined): CalendarPeriod | undefined =>
    CALENDAR_PERIODS.find((own) => own === period);
  return {
    ...(number && { column: number.column.id }),
    ...(measure ? { measure } : records && { measure: 'records' as const }),
    ...(other && { per: other.column.id, ...(other.op === 'difference' && { less: true }) }),
    by: groups.slice(0, 6).map(({ column }) => column.id),
    ...(within.length > 0 && { within: Math.min(within.length, 6) }),
    ...(periods.length > 0 && { period: periods[0] }),
    ...(periods.length > 1 && { periods: [...periods].reverse() }),
    ...(of('period').some(({ period }) => period === 'weekday') && { weekday: true }),
    ...(has('yearStart') && { yearStartsIn: of('yearStart')[0].month }),
    ...(ends && { first: ends.count }),
    ...(order && { order }),
    ...(has('ahead') && { ahead: of('ahead')[0].count }),
    ...(has('ends') && { from: of('ends')[0].from, to: of('ends')[0].to }),
    ...(percents.length > 0 && { percents: percents.slice(0, 20) }),
    ...(stands.length > 0 && { stands: stands.slice(0, 20) }),
    ...(conditions.length > 0 && {
      conditions: conditions.slice(0, 20),
      ...(has('both') && { both: true }),
      ...(has('neither') && { neither: true }),
    }),
    ...((conditions.length > 0 || measures.length > 1) && { measures }),
    ...(measures.length > 1 &&
      plain.length > 0 && { plain: plain.map(({ column }) => column.id).slice(0, 20) }),
    ...(has('often') && { often: true }),
    ...(has('bands') && { bands: true }),
    ...(has('width') && { width: of('width')[0].width }),
    ...(has('edges') && { edges: [...of('edges')[0].edges] }),
    ...(has('table') && { table: of('table')[0].table }),
    ...(has('deviation') && { withDeviation: true }),
    ...(best && groups.length > 1 && { best }),
    ...(has('toDate') && { toDate: true }),
    ...(has('against') && { earlier: of('against')[0].what }),
    ...(across !== undefined && calendar(across) && { beside: calendar(across) }),
  };
}

/** “which workshop has the highest charge”: that one first. */
function whichEnd(parts: readonly Part[]): 'highest' | 'lowest' | undefined {
  if (!parts.some(({ is }) => is === 'which')) return undefined;
  const kinds = parts.flatMap((part) => (part.is === 'measure' ? [part.kind] : []));
  return kinds.includes('max') ? 'highest' : kinds.includes('min') ? 'lowest' : undefined;
}

const COUNT = [{ is: 'measure', kind: 'records' }] as const;

/** The one measure that was named, in as far as it is of one column. */
function measureOf(
  kind: MeasureKind | undefined,
  other: Placed | undefined,
  counts: boolean,
): MeasureKind | undefined {
  if (other) return kind === 'weightedMean' ? kind : undefined;
  return kind ?? (counts ? 'records' : undefined);
}

/**
 * `count, fares and mean delay`: each column with the measures named before it, the last one with those
 * behind it too; a sum where none is. Records are counted where that is said, or nothing else is.
 */
function measuresIn(
  what: readonly Placed[],
  loose: readonly { kind: MeasureKind; percent?: number }[],
  other: Placed | undefined,
): Measure[] {
  const of = what.filter((p) => p !== other && (isNumber(p) || isOf(p)));
  const out: Measure[] = [];
  let counts = loose.some(({ kind }) => kind === 'records');
  of.forEach((p, k) => {
    const kinds = [...p.kinds, ...(k === of.length - 1 ? loose : [])];
    if (kinds.some(({ kind }) => kind === 'records')) counts = true;
    if (counts && !out.some(({ kind }) => kind === 'records')) out.push({ kind: 'records' });
    const own = kinds.filter(({ kind }) => kind !== 'records');
    for (const { kind, percent } of own.length > 0
      ? own
      : [{ kind: 'sum' as const, percent: undefined }])
      if (MEASURES[kind].types.includes(p.column.type))
        out.push({
          kind,
          column: p.column.id,
          ...(kind === 'percentile' && { percent: percent ?? 90 }),
        });
  });
  if (out.length === 0) out.push({ kind: 'records' });
  return out.slice(0, 20);
}

import { z } from 'zod';
import { Measure, MEASURES, MEASURE_KINDS, needsOther, type MeasureKind } from '../measure/measure';
import { Condition } from '../scope/condition';
import { MONTHS } from '../table/calendar';
import { CALENDAR_PERIODS, type CalendarPeriod } from '../table/period';
import { PeriodName } from './periodNamed';
import { conditionsIn, type Named } from './wishConditions';

/** What the analyst has said so far: `median delay by vessel`, or the column whose panel is open. */
export const Wish = z.strictObject({
  /** The column that figures are of. */
  column: z.string().optional(),
  measure: z.enum(MEASURE_KINDS).optional(),
  /** Columns to group by, from the outermost. */
  by: z.array(z.string()).max(6).optional(),
  /** How many of the first of `by` places are given within. */
  within: z.int().min(0).max(6).optional(),
  /** The shortest period named. */
  period: z.enum(CALENDAR_PERIODS).optional(),
  /** All periods named, from the longest, where there are several. */
  periods: z.array(z.enum(CALENDAR_PERIODS)).optional(),
  /** The month in which a year starts. */
  yearStartsIn: z.int().min(1).max(12).optional(),
  /** The first so many. */
  first: z.int().min(1).max(1_000_000).optional(),
  /** The next so many periods. */
  ahead: z.int().min(1).max(500).optional(),
  /** From one period to another, by their names. */
  from: PeriodName.optional(),
  to: PeriodName.optional(),
  /** Percentages named. */
  percents: z.array(z.number().min(0).max(100)).max(20).optional(),
  /** Values whose place is asked. */
  stands: z.array(z.number()).max(20).optional(),
  /** Conditions that figures are asked under, each by itself. */
  conditions: z.array(Condition).max(20).optional(),
  /** Besides each of them: those that meet all, those that meet none. */
  both: z.boolean().optional(),
  neither: z.boolean().optional(),
  /** All that is asked, where that is more than one figure, or it is asked under conditions. */
  measures: z.array(Measure).max(20).optional(),
  /** Columns among those that were named without a measure: the list says whether they add up. */
  plain: z.array(z.string()).max(20).optional(),
  /** How often each value occurs, the commonest first. */
  often: z.boolean().optional(),
  /** Edges of bands, rising. */
  edges: z.array(z.number()).min(1).max(100).optional(),
  /** The best one of each group. */
  best: z.boolean().optional(),
});
export type Wish = z.infer<typeof Wish>;

/* Maps, not objects: an object also knows words such as “constructor”. */

/** Words for measures besides those of the catalogue. */
const ALSO: ReadonlyMap<string, MeasureKind> = new Map([
  ['total', 'sum'],
  ['average', 'mean'],
  ['count', 'records'],
  ['number', 'records'],
  ['highest', 'max'],
  ['lowest', 'min'],
  ['maximum', 'max'],
  ['minimum', 'min'],
  ['deviation', 'sd'],
]);

const PERIOD_WORDS: ReadonlyMap<string, CalendarPeriod> = new Map([
  ...CALENDAR_PERIODS.flatMap((period) => [
    [period, period] as const,
    [`${period}s`, period] as const,
  ]),
  ['monthly', 'month'],
  ['yearly', 'year'],
  ['weekly', 'week'],
  ['daily', 'day'],
  ['quarterly', 'quarter'],
]);

/** Words after which columns to group by are named. */
const BY = new Set(['by', 'per', 'across']);

/** An order that is said of answers; the “first” in it is no measure. */
const ORDER = /\b(?:most|least|largest|smallest|biggest|highest|lowest|best) first\b/gi;
const OFTEN = /\bhow often\b|\bmost first\b|\bcommonest\b/i;
const BEST = /\bbest\b|\bwhich .*\b(?:highest|most|led)\b/i;

/** Words that name no kind of question, though a kind may be described with them. */
const SMALL = new Set(['and', 'the', 'for', 'each', 'per', 'with', 'all', 'others']);

/**
 * What was typed as a wish: a measure, the column it is of, what it is by, periods, how many. Null
 * where nothing of it is a measure, a column or a period.
 * @example wishOf('median delay by vessel', columns) // { measure: 'median', column: 'delay', by: ['vessel'] }
 * @example wishOf('rank vessel by fares within route, first 3', columns) // { column: 'fares', by: ['route', 'vessel'], within: 1, first: 3 }
 * @example wishOf('delay in bands 0, 1, 5, 10', columns) // { column: 'delay', edges: [0, 1, 5, 10] }
 * @example wishOf('best vessel of each route by fares', columns) // { column: 'fares', by: ['route', 'vessel'], best: true }
 */
export function wishOf(typed: string, columns: readonly Named[]): Wish | null {
  const { conditions, both, neither, rest: text } = conditionsIn(typed, columns);
  const words = wordsOf(text.replace(ORDER, ''));
  const places = placesOf(words, columns);
  const named = (role: Role): Named[] => places.filter((p) => p.role === role).map((p) => p.column);
  const [what, after, within, each] = [named('what'), named('by'), named('within'), named('each')];
  const isNumber = (c: Named): boolean => c.type === 'number';
  const number = what.find(isNumber);
  // "rank vessels by fares": the number is what they are ranked by, the vessels are the groups.
  const ranked = number ? undefined : [...after, ...(BEST.test(text) ? each : [])].find(isNumber);
  const column = number ?? ranked ?? what[0];
  // "fares by vessel for each route": the routes are around the vessels.
  const grouped = [...each, ...what.filter((c) => !isNumber(c)), ...after];
  const by = [...within, ...grouped].filter((c) => c !== column).map((c) => c.id);
  const { measures, plain } = measuresIn(words, places);
  const own = measures.find((m) => column !== undefined && m.column === column.id);
  const measure = !own
    ? kindsIn(words.slice(0, firstBy(words)))[0]
    : plain.includes(own.column ?? '')
      ? undefined
      : own.kind;
  const often = OFTEN.test(text);
  const edges = edgesIn(text);
  const best = BEST.test(text) && by.length > 1;
  const periods = CALENDAR_PERIODS.filter((period) =>
    words.some((word) => PERIOD_WORDS.get(word) === period),
  );
  if (!column && by.length === 0 && !measure && periods.length === 0 && !conditions.length)
    return null;
  const ends = endsIn(words);
  const [first, ahead] = [countAfter(words, /^(first|top)$/), countAfter(words, /^next$/)];
  const starts = periods.length > 0 ? startIn(text) : 0;
  const percents = numbersIn(text, /(\d+(?:\.\d+)?)\s?%/g).filter((percent) => percent <= 100);
  const stands = numbersIn(text, /\bwhere\s(-?\d+(?:\.\d+)?)(?!\S)/g);
  return {
    ...(column && { column: column.id }),
    ...(measure && { measure }),
    ...(by.length > 0 && { by: by.slice(0, 6) }),
    ...(within.length > 0 && { within: Math.min(within.length, 6) }),
    ...(periods.length > 0 && { period: periods[0] }),
    ...(periods.length > 1 && { periods: periods.reverse() }),
    ...(starts && { yearStartsIn: starts }),
    ...(first && { first: Math.min(first, 1_000_000) }),
    ...(ahead && { ahead: Math.min(ahead, 500) }),
    ...ends,
    ...(percents.length > 0 && { percents: percents.slice(0, 20) }),
    ...(stands.length > 0 && { stands: stands.slice(0, 20) }),
    ...(conditions.length > 0 && {
      conditions: conditions.slice(0, 20),
      ...(both && { both }),
      ...(neither && { neither }),
    }),
    ...((conditions.length > 0 || measures.length > 1) && { measures }),
    ...(measures.length > 1 && plain.length > 0 && { plain }),
    ...(often && { often }),
    ...(edges.length > 0 && { edges }),
    ...(best && { best }),
  };
}

/**
 * How well a question fits what was typed: by how many words that it is found by (`rank`, `growth`),
 * and before all where the wish can hardly mean another.
 */
export function fitOf(text: string, { found, meant }: { found: string; meant: boolean }): number {
  const known = found.split(' ');
  const met = wordsOf(text).filter(
    (word) =>
      word.length > 2 &&
      !SMALL.has(word) &&
      // A measure is an answer to many questions.
      kindsIn([word]).length === 0 &&
      known.some((k) => k === word || `${k}s` === word || (word.length > 4 && k.startsWith(word))),
  );
  return met.length + (meant ? 100 : 0);
}

/** Words in small letters, without the marks that part them. */
const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[\s,;:?]+/)
    .filter((word) => word !== '');

type Role = 'what' | 'by' | 'within' | 'each';

interface Place {
  readonly at: number;
  readonly column: Named;
  readonly role: Role;
}

/**
 * The columns that words name, in the order in which they stand: by a whole name first, else by a
 * word of it, or its beginning, of four letters or more. A word names one column.
 */
function placesOf(words: readonly string[], columns: readonly Named[]): Place[] {
  const taken = new Set<number>();
  const found = new Map<Named, number>();
  const longestFirst = columns
    .map((column) => ({ column, name: wordsOf(column.name) }))
    .sort((a, b) => b.name.length - a.name.length);
  for (const { column, name } of longestFirst) {
    if (name.length === 0) continue;
    const at = words.findIndex((_, k) =>
      name.every((word, n) => words[k + n] === word && !taken.has(k + n)),
    );
    if (at < 0) continue;
    found.set(column, at);
    name.forEach((_, n) => taken.add(at + n));
  }
  words.forEach((word, at) => {
    if (word.length < 4 || taken.has(at) || PERIOD_WORDS.has(word)) return;
    const single = word.replace(/s$/, '');
    const column = columns.find(
      (c) => !found.has(c) && wordsOf(c.name).some((w) => w.length >= 4 && w.startsWith(single)),
    );
    if (!column) return;
    found.set(column, at);
    taken.add(at);
  });
  const roles = rolesOf(words);
  return [...found]
    .map(([column, at]) => ({ at, column, role: roles[at] }))
    .sort((a, b) => a.at - b.at);
}

/** What each word stands in: what is figured, what it is by, what it is within or of each of. */
function rolesOf(words: readonly string[]): Role[] {
  let role: Role = 'what';
  return words.map((word) => {
    if (BY.has(word)) role = 'by';
    else if (word === 'within' || word === 'each') role = word;
    return role;
  });
}

function firstBy(words: readonly string[]): number {
  const at = rolesOf(words).findIndex((role) => role !== 'what');
  return at < 0 ? words.length : at;
}

/** Measures by the words that name them, longest first; those that need a second column are not asked for so. */
const PHRASES: readonly (readonly [words: readonly string[], kind: MeasureKind])[] =
  MEASURE_KINDS.filter((kind) => needsOther(kind) === null)
    .map((kind) => [MEASURES[kind].words.split(' '), kind] as const)
    .sort(([a], [b]) => b.length - a.length);

/** The measures that words name, in their order, each once. */
function kindsIn(words: readonly string[]): MeasureKind[] {
  const found: MeasureKind[] = [];
  for (let at = 0; at < words.length;) {
    const phrase = PHRASES.find(([named]) => named.every((word, n) => words[at + n] === word));
    // "first 3" says how many.
    const counts = /^[1-9]/.test(words[at + 1] ?? '');
    const kind =
      counts && phrase?.[1] === 'first' ? undefined : (phrase?.[1] ?? ALSO.get(words[at]));
    if (kind !== undefined && !found.includes(kind)) found.push(kind);
    at += phrase?.[0].length ?? 1;
  }
  return found;
}

/**
 * `count, fares and mean delay`: each number with the measures named before it, the last one with those
 * behind it too; a sum where none is. Records are counted where that is said, or nothing else is.
 */
function measuresIn(
  words: readonly string[],
  places: readonly Place[],
): { measures: Measure[]; plain: string[] } {
  const end = firstBy(words);
  const numbers = places.filter((p) => p.role === 'what' && p.column.type === 'number');
  const out: Measure[] = [];
  const plain: string[] = [];
  let from = 0;
  numbers.forEach(({ at, column }, k) => {
    const kinds = kindsIn(words.slice(from, at));
    if (k === numbers.length - 1) kinds.push(...kindsIn(words.slice(at + 1, end)));
    if (kinds.includes('records')) out.push({ kind: 'records' });
    const own = kinds.filter((kind) => kind !== 'records' && kind !== 'percentile');
    from = at + 1;
    // "count of delays" counts; "count, delay" asks for what they come to as well.
    if (own.length === 0 && kinds.includes('records') && words[at - 1] === 'of') return;
    if (own.length === 0) plain.push(column.id);
    for (const kind of own.length ? own : (['sum'] as const))
      if (MEASURES[kind].types.includes('number')) out.push({ kind, column: column.id });
  });
  if (out.length === 0) out.push({ kind: 'records' });
  return { measures: out.slice(0, 20), plain };
}

/** `bands 0, 1, 5 and 10`: the edges, rising, each once. */
function edgesIn(text: string): number[] {
  const [, said = ''] = /\bbands?:?\s((?:[\s,;]|and|-?\d+(?:\.\d+)?)+)/i.exec(text) ?? [];
  const edges = numbersIn(said, /(-?\d+(?:\.\d+)?)/g);
  return [...new Set(edges)].sort((a, b) => a - b).slice(0, 100);
}

/** `from April`, `years that start in April`: the month's number; 0 where none is named, or a span of months is. */
function startIn(text: string): number {
  const [, month = ''] =
    /\b(?:from|starts?|starting)\s+(?:in\s+|with\s+)?([a-z]+)\b(?!\s+(?:to|until|\d))/i.exec(
      text,
    ) ?? [];
  return 1 + MONTHS.findIndex((name) => name.toLowerCase() === month.toLowerCase());
}

/** Two periods with `to` or `and` between them. */
function endsIn(words: readonly string[]): { from: string; to: string } | null {
  for (let k = 1; k + 1 < words.length; k++) {
    if (words[k] !== 'to' && words[k] !== 'and') continue;
    const [from, to] = [words[k - 1], words[k + 1]].map((w) =>
      PeriodName.safeParse(w.toUpperCase()),
    );
    if (from.success && to.success) return { from: from.data, to: to.data };
  }
  return null;
}

/** The whole number that stands after a word: `first 3`. */
function countAfter(words: readonly string[], name: RegExp): number | undefined {
  const at = words.findIndex((word, k) => name.test(word) && /^[1-9]\d{0,6}$/.test(words[k + 1]));
  return at < 0 ? undefined : Number(words[at + 1]);
}

const numbersIn = (text: string, pattern: RegExp): number[] =>
  [...text.toLowerCase().matchAll(pattern)].map(([, digits]) => Number(digits));

import type { KeptBands } from '../../arrange/bands';
import { CALENDAR_PERIODS } from '../../table/period';
import type { Wish } from './wish';
import { conditionsIn, type Named } from './wishConditions';
import { kindsIn, measuresIn } from './wishMeasures';
import { countAfter, edgesIn, endsIn, numbersIn, startIn, tableIn } from './wishNumbers';
import { firstBy, PERIOD_WORDS, placesOf, wordsOf, type Role } from './wishPlaces';

/** An order that is said of answers; the “first” in it is no measure. */
const ORDER = /\b(?:most|least|largest|smallest|biggest|highest|lowest|best) first\b/gi;
const OFTEN = /\bhow often\b|\bmost first\b|\bcommonest\b/i;
const BEST = /\bbest\b|\bwhich .*\b(?:highest|most|led)\b/i;

/** Words that name no kind of question, though a kind may be described with them. */
const SMALL = new Set(['and', 'the', 'for', 'each', 'per', 'with', 'all', 'others']);

/**
 * What was typed as a wish: a measure, the column it is of, what it is by, periods, how many. Null
 * where nothing of it is a measure, a column or a period.
 * @param kept band tables by the names they are kept under
 * @example wishOf('median delay by vessel', columns) // { measure: 'median', column: 'delay', by: ['vessel'] }
 * @example wishOf('rank vessel by fares within route, first 3', columns) // { column: 'fares', by: ['route', 'vessel'], within: 1, first: 3 }
 * @example wishOf('delay in bands 0, 1, 5, 10', columns) // { column: 'delay', edges: [0, 1, 5, 10] }
 * @example wishOf('keldhaven a in delays', columns, [delays]) // { column: 'a', table: delays }
 * @example wishOf('fares per boarded by route', columns) // { column: 'fares', per: 'boarded', by: ['route'] }
 * @example wishOf('best vessel of each route by fares', columns) // { column: 'fares', by: ['route', 'vessel'], best: true }
 */
export function wishOf(
  typed: string,
  columns: readonly Named[],
  kept: readonly KeptBands[] = [],
): Wish | null {
  const { table, rest } = tableIn(typed, kept);
  const { conditions, both, neither, rest: text } = conditionsIn(rest, columns);
  const words = wordsOf(text.replace(ORDER, ''));
  const places = placesOf(words, columns);
  const named = (role: Role): Named[] => places.filter((p) => p.role === role).map((p) => p.column);
  const [what, after, within, each] = [named('what'), named('by'), named('within'), named('each')];
  const isNumber = (c: Named): boolean => c.type === 'number';
  const number = what.find(isNumber);
  // "rank vessels by fares": the number is what they are ranked by, the vessels are the groups.
  const ranked = number ? undefined : [...after, ...(BEST.test(text) ? each : [])].find(isNumber);
  // "top 2 vessels within route": the vessels are ranked, no figure is of them.
  const counted = countAfter(words, /^(first|top)$/) !== undefined;
  const column = number ?? ranked ?? (within.length > 0 || counted ? undefined : what[0]);
  // "fares by vessel for each route": the routes are around the vessels.
  const grouped = [...each, ...what.filter((c) => !isNumber(c)), ...after];
  // “fares per boarded”: a number is divided by, not grouped by.
  const divisor =
    number && places.find(({ at, column: c }) => isNumber(c) && words[at - 1] === 'per');
  const per = divisor?.column.id;
  const by = [...within, ...grouped].filter((c) => c !== column && c.id !== per).map((c) => c.id);
  const { measures, plain } = measuresIn(words, places);
  const own = measures.find((m) => column !== undefined && m.column === column.id);
  const measure = !own
    ? kindsIn(words.slice(0, firstBy(words)))[0]
    : plain.includes(own.column ?? '')
      ? undefined
      : own.kind;
  const often = OFTEN.test(text);
  const edges = edgesIn(text);
  const withDeviation = /±|\+\/-/.test(text);
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
    ...(per !== undefined && { per }),
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
    ...(table && { table }),
    ...(withDeviation && { withDeviation }),
    ...(best && { best }),
  };
}

/**
 * How well a question fits what was typed: by how many words that it is found by (`rank`, `growth`),
 * and before all where the wish can hardly mean another.
 * @param columns of the list: their names are no words for a question
 */
export function fitOf(
  text: string,
  { found, meant }: { found: string; meant: boolean },
  columns: readonly Pick<Named, 'name'>[] = [],
): number {
  const known = found.split(' ');
  // A column called “Season” is meant by its name, not what a forecast goes by.
  const names = new Set(columns.flatMap(({ name }) => wordsOf(name)));
  const met = wordsOf(text).filter(
    (word) =>
      word.length > 2 &&
      !SMALL.has(word) &&
      !names.has(word) &&
      // A measure is an answer to many questions.
      kindsIn([word]).length === 0 &&
      known.some((k) => k === word || `${k}s` === word || (word.length > 4 && k.startsWith(word))),
  );
  return met.length + (meant ? 100 : 0);
}

import {
  MEASURES,
  MEASURE_KINDS,
  needsOther,
  type Measure,
  type MeasureKind,
} from '../../measure/measure';
import { firstBy, type Place } from './wishPlaces';

/** Which figures the words of a wish name. */

/** Words for measures besides those of the catalogue. A map: an object also knows words such as “constructor”. */
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

/** Measures by the words that name them, longest first; those that need a second column are not asked for so. */
const PHRASES: readonly (readonly [words: readonly string[], kind: MeasureKind])[] =
  MEASURE_KINDS.filter((kind) => needsOther(kind) === null)
    .map((kind) => [MEASURES[kind].words.split(' '), kind] as const)
    .sort(([a], [b]) => b.length - a.length);

/** Every word that names a measure, or is one of several that do. */
export const MEASURE_WORDS: readonly string[] = [
  ...ALSO.keys(),
  ...PHRASES.flatMap(([words]) => words),
];

/** The measures that words name, in their order, each once. */
export function kindsIn(words: readonly string[]): MeasureKind[] {
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
export function measuresIn(
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

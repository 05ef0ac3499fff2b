import type { Band, Bands, KeptBands } from '../arrange/bands';
import { slotsOf } from '../tally/sentence/sentence';
import { sentenceOf } from '../tally/sentence/sentences';
import type { Tally } from '../tally/spec/specs';
import type { Bench } from './document';
import { setTally } from './edits';

type Names = ReadonlyMap<string, string>;
type TableBands = Extract<Bands, { by: 'table' }>;

const same = (a: readonly Band[], b: readonly Band[]): boolean =>
  JSON.stringify(a) === JSON.stringify(b);

/** Bands that stand under a name, or are the very ones kept under it and have none. */
const isOf =
  ({ name, bands }: KeptBands) =>
  (used: TableBands): boolean =>
    used.name === undefined ? same(used.bands, bands) : used.name === name;

/**
 * A tally with other bands wherever it has some of a table; the same tally where none changes.
 * @param change gives the same bands back for those that are to stay; those that it gave as well
 */
function withTables(tally: Tally, names: Names, change: (bands: TableBands) => TableBands): Tally {
  for (const { takes } of slotsOf(sentenceOf(tally, names, ''))) {
    if (takes.a === 'bands' && takes.value?.by === 'table') {
      const next = change(takes.value);
      if (next !== takes.value) return withTables(takes.set(next), names, change);
    }
    if (takes.a === 'key' && takes.value?.bands?.by === 'table') {
      const next = change(takes.value.bands);
      if (next !== takes.value.bands)
        return withTables(takes.set({ ...takes.value, bands: next }), names, change);
    }
  }
  return tally;
}

/** All tallies of the tray with other bands; each that has none of them stays as it is. */
const inTray = (doc: Bench, names: Names, change: (bands: TableBands) => TableBands): Bench =>
  doc.tray.reduce((changed, { id, tally }) => {
    const next = withTables(tally, names, change);
    return next === tally ? changed : setTally(changed, id, next);
  }, doc);

/** The tallies that have such bands. */
function having(doc: Bench, names: Names, is: (bands: TableBands) => boolean): string[] {
  return doc.tray
    .filter(({ tally }) => {
      let found = false;
      withTables(tally, names, (bands) => {
        found ||= is(bands);
        return bands;
      });
      return found;
    })
    .map(({ id }) => id);
}

/** The tallies of the tray that use the bands this bench keeps under a name. */
export function usersOfBands(doc: Bench, name: string, names: Names): string[] {
  const kept = doc.bands.find((one) => one.name === name);
  return kept ? having(doc, names, isOf(kept)) : [];
}

/** Other bands in every tally that uses those this bench keeps under a name. */
export function followBands(doc: Bench, name: string, now: Band[], names: Names): Bench {
  const kept = doc.bands.find((one) => one.name === name);
  if (!kept || same(kept.bands, now)) return doc;
  const uses = isOf(kept);
  return inTray(doc, names, (bands) =>
    uses(bands) && !same(bands.bands, now) ? { by: 'table', name, bands: now } : bands,
  );
}

/** Bands kept under a name that tallies have as they were when they took them. */
export interface OutdatedBands {
  readonly kept: KeptBands;
  /** The tallies that have them otherwise. */
  readonly tallies: readonly string[];
}

/** Whether bands stand under the name of kept ones and are not those. */
const isOutdated =
  ({ name, bands }: KeptBands) =>
  (used: TableBands): boolean =>
    used.name === name && !same(used.bands, bands);

/** Of bands kept by name, here or in other benches, those that tallies of the tray have otherwise. */
export const outdatedBands = (
  doc: Bench,
  all: readonly KeptBands[],
  names: Names,
): OutdatedBands[] =>
  all
    .map((kept) => ({ kept, tallies: having(doc, names, isOutdated(kept)) }))
    .filter(({ tallies }) => tallies.length > 0);

/** The bands as they are kept by now, in every tally that has them otherwise. */
export function takeBands(doc: Bench, kept: KeptBands, names: Names): Bench {
  const is = isOutdated(kept);
  return inTray(doc, names, (bands) => (is(bands) ? { by: 'table', ...kept } : bands));
}

/** Bands that tallies have otherwise become their own: they follow those of that name no more. */
export function leaveBands(doc: Bench, kept: KeptBands, names: Names): Bench {
  const is = isOutdated(kept);
  return inTray(doc, names, (bands) => {
    if (!is(bands)) return bands;
    const { name: _, ...own } = bands;
    return own;
  });
}

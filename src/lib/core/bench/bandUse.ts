import type { Band, Bands } from '../arrange/bands';
import { slotsOf } from '../tally/sentence';
import { sentenceOf } from '../tally/sentences';
import type { Tally } from '../tally/specs';
import type { Bench } from './document';
import { setTally } from './edits';

type Names = ReadonlyMap<string, string>;

const sameBands = (a: Bands | null | undefined, bands: readonly Band[]): boolean =>
  a?.by === 'table' && JSON.stringify(a.bands) === JSON.stringify(bands);

/** A tally with other bands wherever it has these; the same tally where it has them nowhere. */
function withBands(tally: Tally, was: readonly Band[], now: Band[], names: Names): Tally {
  const bands: Bands = { by: 'table', bands: now };
  for (const { takes } of slotsOf(sentenceOf(tally, names, ''))) {
    if (takes.a === 'bands' && sameBands(takes.value, was))
      return withBands(takes.set(bands), was, now, names);
    if (takes.a === 'key' && takes.value && sameBands(takes.value.bands, was))
      return withBands(takes.set({ ...takes.value, bands }), was, now, names);
  }
  return tally;
}

/** The tallies of the tray that use bands as they are kept under a name. */
export function usersOfBands(doc: Bench, name: string, names: Names): string[] {
  const kept = doc.bands.find((one) => one.name === name);
  if (!kept) return [];
  // Bands that no tally has stand in for others, so that whatever has these is found.
  const none: Band[] = [{ from: null, to: null, label: '\0' }];
  return doc.tray
    .filter(({ tally }) => withBands(tally, kept.bands, none, names) !== tally)
    .map(({ id }) => id);
}

/** Other bands in every tally that uses those kept under a name. */
export function followBands(doc: Bench, name: string, now: Band[], names: Names): Bench {
  const kept = doc.bands.find((one) => one.name === name);
  if (!kept || sameBands({ by: 'table', bands: kept.bands }, now)) return doc;
  return usersOfBands(doc, name, names).reduce((changed, id) => {
    const item = changed.tray.find((one) => one.id === id);
    return item ? setTally(changed, id, withBands(item.tally, kept.bands, now, names)) : changed;
  }, doc);
}

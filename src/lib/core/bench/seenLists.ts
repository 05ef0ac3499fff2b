import type { Bench } from './document';

/** The readings of other lists that a bench looks at, by the names it calls them. */
export type CurrentReadings = ReadonlyMap<string, number>;

const withSeen = (doc: Bench, names: readonly string[], current: CurrentReadings): Bench => {
  const seen = names.flatMap((name): [string, number][] => {
    const reading = current.get(name);
    return reading === undefined ? [] : [[name, reading]];
  });
  return seen.length ? { ...doc, seen: { ...doc.seen, ...Object.fromEntries(seen) } } : doc;
};

/** A bench after a change: lists that it took in were seen as they are now. */
export const seeingNew = (before: Bench, after: Bench, current: CurrentReadings): Bench =>
  withSeen(
    after,
    Object.keys(after.lists).filter((name) => !(name in before.lists)),
    current,
  );

/** A bench whose analyst knows every list as it is now. */
export const seeingAll = (doc: Bench, current: CurrentReadings): Bench =>
  withSeen(doc, Object.keys(doc.lists), current);

import type { Bench } from '../../core/bench/document';
import type { FigurePlace, ScopeName } from '../../core/tally/answer/result';
import type { KnownNow } from '../../engine/protocol';

/** How known totals stand, by the figures they are of. */
export type KnownMarks = ReadonlyMap<string, KnownNow['stands']>;

/** What a figure of a tally is found by. */
const keyOf = ({ table, row, column }: FigurePlace, scope: ScopeName | undefined): string =>
  JSON.stringify([table, row, column, scope ?? '']);

/** The known totals of one tally; null where it has none, so that nothing is looked up. */
export function knownMarks(doc: Bench, now: readonly KnownNow[], tally: string): KnownMarks | null {
  const own = doc.known.filter((known) => known.tally === tally);
  if (own.length === 0) return null;
  const found = new Map(now.map((known) => [known.id, known]));
  return new Map(
    own.flatMap(({ id, scope }) => {
      const known = found.get(id);
      return known ? [[keyOf(known.place, scope), known.stands] as const] : [];
    }),
  );
}

/** How the known total of a figure stands; undefined where it has none. */
export const knownAt = (
  marks: KnownMarks | null,
  place: FigurePlace,
  scope?: ScopeName,
): KnownNow['stands'] | undefined => marks?.get(keyOf(place, scope));

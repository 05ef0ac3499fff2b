import { z } from 'zod';
import { Doubt } from '$lib/core/read/doubts';
import type { Database } from './database';

/** One file of a reading: its records stand together, in chunks of their own. */
export const ReadingPart = z.strictObject({
  fileName: z.string(),
  readAt: z.string(),
  records: z.int().min(0),
  chunks: z.int().min(0),
  /** By the numbers of its own records. */
  doubts: z.array(Doubt),
});
export type ReadingPart = z.infer<typeof ReadingPart>;

/** The files that a stored reading is put together of, in the order of its records; itself where nothing was added. */
export const partsOf = (stored: string | null, whole: ReadingPart): ReadingPart[] =>
  stored === null ? [whole] : z.array(ReadingPart).parse(JSON.parse(stored));

/** The doubts of all files together, by the numbers that their records have in the list. */
export function doubtsOfParts(parts: readonly ReadingPart[]): Doubt[] {
  let before = 0;
  return parts.flatMap(({ fileName, doubts, records }) => {
    const shift = before;
    before += records;
    return doubts.map((doubt) => ({
      ...doubt,
      words: parts.length > 1 ? `${fileName}: ${doubt.words}` : doubt.words,
      places: doubt.places.map((place) => ({ ...place, record: place.record + shift })),
    }));
  });
}

/** What of a reading goes into another, first. */
export interface KeptParts {
  readonly of: { readonly id: number; readonly parts: readonly ReadingPart[] };
  /** Which of its parts are left out. */
  readonly without?: number;
}

/** The parts that are kept, and where each lies in the reading that they are of. */
export function placesOf({ of, without }: KeptParts): {
  part: ReadingPart;
  firstChunk: number;
  firstRecord: number;
}[] {
  let firstChunk = 0;
  let firstRecord = 0;
  return of.parts.flatMap((part, k) => {
    const place = { part, firstChunk, firstRecord };
    firstChunk += part.chunks;
    firstRecord += part.records;
    return k === without ? [] : [place];
  });
}

/** Copies the chunks of the parts that are kept to the start of another reading. @returns how many */
export async function copyParts(tx: Database, to: number, kept: KeptParts): Promise<number> {
  let at = 0;
  for (const { part, firstChunk } of placesOf(kept)) {
    const shift = at - firstChunk;
    await tx
      .insertInto('chunks')
      .columns(['reading_id', 'n', 'data'])
      .expression((eb) =>
        eb
          .selectFrom('chunks')
          .select((of) => [of.val(to).as('reading_id'), of('n', '+', shift).as('n'), 'data'])
          .where('reading_id', '=', kept.of.id)
          .where('n', '>=', firstChunk)
          .where('n', '<', firstChunk + part.chunks),
      )
      .execute();
    at += part.chunks;
  }
  return at;
}

/**
 * The number that a record has in the reading that its part was kept in; null where its part was left out.
 * @returns a function from numbers of the reading before to those of the one after
 */
export function followParts(kept: KeptParts): (number: number) => number | null {
  const places = placesOf(kept);
  return (number) => {
    let before = 0;
    for (const { part, firstRecord } of places) {
      const within = number - 1 - firstRecord;
      if (within >= 0 && within < part.records) return before + within + 1;
      before += part.records;
    }
    return null;
  };
}

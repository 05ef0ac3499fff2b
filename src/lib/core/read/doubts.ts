import { z } from 'zod';
import { recordNumber } from '../table/recordNumber';

/** A place in the file: the number of the record, from 1, and the text that raised the doubt. */
const Place = z.object({ record: z.int(), text: z.string() });
export type Place = z.infer<typeof Place>;

export const DOUBT_KINDS = [
  'unread',
  'ambiguousDates',
  'ambiguousMarks',
  'mixedOffsets',
  'width',
  'names',
  'totals',
  'twins',
  'outerSpaces',
  'blankWords',
  'longCells',
  'quotes',
  'undecoded',
  'nuls',
  'lineEnds',
  'emptyLines',
  'skippedLines',
  'notesBelow',
  'headerAgain',
  'headerNumbers',
  'spanningCells',
  'farDates',
  'mixedKinds',
  'accountMarks',
  'identifier',
  'years',
  'dayNumbers',
  'longNumbers',
  'keptAsText',
  'numbersAsText',
  'errorCells',
  'hidden',
  'mergedCells',
  'headLines',
  'otherParts',
] as const;

/** Something in a file that the analyst should see before the reading is accepted. */
export const Doubt = z.object({
  kind: z.enum(DOUBT_KINDS),
  /** Column id, where it concerns one. */
  column: z.string().optional(),
  count: z.number(),
  /** The first places, at most PLACES of them. */
  places: z.array(Place),
  /** In plain words, with the remedy. */
  words: z.string(),
  /** An answer is needed before accepting. */
  asks: z.boolean().default(false),
});
export type Doubt = z.infer<typeof Doubt>;

/** How many places a doubt lists. */
export const PLACES = 50;

interface DoubtParts {
  column?: string;
  /** By the places of their records, from 0. */
  places?: readonly Place[];
  asks?: boolean;
}

/** A doubt with at most so many places. */
export const doubt = (
  kind: (typeof DOUBT_KINDS)[number],
  count: number,
  words: string,
  { column, places = [], asks = false }: DoubtParts = {},
): Doubt => ({
  kind,
  count,
  words,
  places: places
    .slice(0, PLACES)
    .map(({ record, text }) => ({ record: recordNumber(record), text })),
  asks,
  ...(column ? { column } : {}),
});

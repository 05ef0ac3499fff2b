import { z } from 'zod';

/** A tally's figures against what they were over an older reading. */
export const MovedTally = z.strictObject({
  id: z.string(),
  name: z.string(),
  words: z.string(),
  /** Why nothing could be compared; '' where it was. */
  why: z.string(),
  /** Figures that stand in both readings, and how many of them moved. */
  compared: z.int(),
  count: z.int(),
  /** The first of them, the largest relative change first. */
  moved: z.array(
    z.strictObject({
      where: z.string(),
      title: z.string(),
      before: z.string(),
      after: z.string(),
      change: z.string(),
      share: z.number().nullable(),
    }),
  ),
  /** Rows that only one of the readings has. */
  came: z.array(z.string()),
  went: z.array(z.string()),
});
export type MovedTally = z.infer<typeof MovedTally>;

export const Moved = z.strictObject({
  against: z.string(),
  /** Records that the bench sets aside, corrects or names, and that the older reading has not. */
  lost: z.int(),
  tallies: z.array(MovedTally),
});
export type Moved = z.infer<typeof Moved>;

/** A record that moved a figure between two readings. */
export const MovedRecordRow = z.strictObject({
  how: z.enum(['came', 'went', 'changed']),
  /** Its number in the newer reading, or in the older one where it went. */
  number: z.int(),
  /** Its place in the list; null where it went, or the newer reading is another. */
  record: z.int().nullable(),
  cells: z.array(z.string()),
});
export type MovedRecordRow = z.infer<typeof MovedRecordRow>;

export const MovedRecords = z.strictObject({
  total: z.int(),
  columns: z.array(z.strictObject({ name: z.string(), right: z.boolean() })),
  /** Those that moved it most first. */
  records: z.array(MovedRecordRow),
});
export type MovedRecords = z.infer<typeof MovedRecords>;

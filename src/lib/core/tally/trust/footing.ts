import { z } from 'zod';

/** Whether a result foots and cross-foots, with the first place where it does not. */
export const Footing = z.object({
  /** No comparison failed. With nothing compared this says nothing. */
  foots: z.boolean(),
  /** Figures compared with their parts, or with the records anew. */
  compared: z.int(),
  failure: z
    .strictObject({
      table: z.string(),
      row: z.int(),
      column: z.string(),
      /** The row and the column in words. */
      where: z.string(),
      title: z.string(),
      /** Parts less the whole. */
      difference: z.number(),
    })
    .nullable(),
  /** Columns of measures that do not add: means, medians, distinct counts. */
  notAdding: z.array(z.string()),
  words: z.string(),
});
export type Footing = z.infer<typeof Footing>;

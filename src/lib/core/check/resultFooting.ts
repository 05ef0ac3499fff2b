import { z } from 'zod';

/** Whether a result foots and cross-foots, with the first place where it does not. */
export const ResultFooting = z.object({
  foots: z.boolean(),
  /** Sums of parts compared with their whole. */
  compared: z.int(),
  failure: z
    .object({ table: z.string(), row: z.int(), column: z.string(), difference: z.number() })
    .nullable(),
  /** Columns of measures that do not add: means, medians, distinct counts. */
  notAdding: z.array(z.string()),
  says: z.string(),
});
export type ResultFooting = z.infer<typeof ResultFooting>;

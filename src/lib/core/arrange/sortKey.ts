import { z } from 'zod';

/** One key of the order of records. */
export const SortKey = z.strictObject({
  column: z.string(),
  descending: z.boolean().default(false),
  blanks: z.enum(['last', 'first']).default('last'),
  /** Values in an order given by hand (Low, Medium, High); others follow. */
  hand: z.array(z.string()).max(10_000).optional(),
});
export type SortKey = z.infer<typeof SortKey>;

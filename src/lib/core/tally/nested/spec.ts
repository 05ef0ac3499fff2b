import { z } from 'zod';
import { tallyCommon } from '../common';
import { SimpleTally } from '../simpleSpecs';

/** A tally of another tally's groups: of each region, the highest of the sums by depot, and which. */
export const NestedSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('nested'),
  /** Reckoned from the records; its groups become the records of the outer one. */
  inner: SimpleTally,
  /** Which of the inner's tables; the first unless given. */
  table: z.string().default('main'),
  /** Columns are those of the inner result, by title or key (`m1`, `records`). */
  outer: SimpleTally,
});
export type NestedSpec = z.infer<typeof NestedSpec>;

import { z } from 'zod';
import { tallyCommon } from '../../spec/common';
import { SimpleTally } from '../../spec/simpleSpecs';

/** Which figures of a tally moved between two readings of a list, and through which records. */
export const ComparisonSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('comparison'),
  /** The older reading, by the name the ask gives it. */
  with: z.string(),
  /** The newer reading, by the name the ask gives it; the list as it stands unless given. */
  to: z.string().optional(),
  /** Columns that name a record in both; whole records are matched without any. */
  match: z.array(z.string()).max(20).default([]),
  tally: SimpleTally,
  /** Whether figures that did not move are shown too. */
  unmoved: z.boolean().default(false),
});
export type ComparisonSpec = z.infer<typeof ComparisonSpec>;

import { z } from 'zod';
import { GroupKey } from '../../../arrange/groupKey';
import { RANK_METHODS } from '../../../measure/quantileDefinitions';
import { tallyCommon } from '../../spec/common';

/** Percentiles of a column, and the percentile ranks of given values. */
export const PercentileSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('percentile'),
  column: z.string(),
  key: GroupKey.optional(),
  /** 0..100. */
  percentiles: z.array(z.number().min(0).max(100)).max(1000).default([10, 25, 50, 75, 90]),
  /** Of Hyndman and Fan; 7 is linear between the ordered values. */
  definition: z.int().min(1).max(9).default(7),
  /** Values whose percentile rank is asked. */
  ranksOf: z.array(z.number()).max(1000).default([]),
  rankMethod: z.enum(RANK_METHODS).default('atOrUnder'),
  few: z.int().min(0).max(1_000_000).default(10),
});
export type PercentileSpec = z.infer<typeof PercentileSpec>;

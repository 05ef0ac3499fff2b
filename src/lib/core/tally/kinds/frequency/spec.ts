import { z } from 'zod';
import { GroupKey } from '../../../arrange/groupKey';
import { Measure } from '../../../measure/measure';
import { tallyCommon } from '../../spec/common';

/** How often each value, band or period of a key occurs, with cumulative counts. */
export const FrequencySpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('frequency'),
  key: GroupKey,
  measures: z.array(Measure).max(40).default([]),
  few: z.int().min(0).max(1_000_000).default(10),
});
export type FrequencySpec = z.infer<typeof FrequencySpec>;

import { z } from 'zod';
import { tallyCommon } from '../common';
import { SeriesSpec } from '../seriesSpec';

/** Growth of a measure by period, or between two known values. */
export const GrowthSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('growth'),
  series: SeriesSpec.optional(),
  /** Ends of the growth, each named by a day in its period; the first and last whole period unless given. */
  from: z.iso.date().optional(),
  to: z.iso.date().optional(),
  /** Or two values: so many intervals apart, or on two dates. */
  values: z
    .strictObject({
      first: z.number(),
      last: z.number(),
      intervals: z.number().positive().optional(),
      firstDate: z.iso.date().optional(),
      lastDate: z.iso.date().optional(),
    })
    .optional(),
  /** The value so many periods on at the compound rate. */
  ahead: z.number().min(0).max(1000).default(1),
});
export type GrowthSpec = z.infer<typeof GrowthSpec>;

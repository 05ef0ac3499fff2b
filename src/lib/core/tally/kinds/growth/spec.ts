import { z } from 'zod';
import { tallyCommon } from '../../spec/common';
import { PeriodName } from '../../series/periodNamed';
import { SeriesSpec } from '../../series/seriesSpec';

/** Growth of a measure by period, or between two known values. */
export const GrowthSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('growth'),
  series: SeriesSpec.optional(),
  /** Ends of the growth ("2024", "2024-Q2", "2024-04"); the first and last whole period unless given. */
  from: PeriodName.optional(),
  to: PeriodName.optional(),
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

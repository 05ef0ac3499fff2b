import { z } from 'zod';
import { GroupKey } from '../../../arrange/groupKey';
import { Measure } from '../../../measure/measure';
import { Calendar, CALENDAR_PERIODS } from '../../../table/period';
import { tallyCommon } from '../../spec/common';
import { PeriodName } from '../../series/periodNamed';

/** Measures by period of a date, with levels that nest and what follows from the periods before. */
export const PeriodsSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('periods'),
  column: z.string(),
  /** From the longest to the shortest: year, quarter, month. */
  levels: z.array(z.enum(CALENDAR_PERIODS)).min(1).max(5),
  calendar: Calendar.optional(),
  /** A series for each group of these keys, over one calendar, besides the whole. */
  by: z.array(GroupKey).max(4).default([]),
  /** Periods within each group, or groups within each of the shortest periods. */
  nest: z.enum(['periods', 'groups']).default('periods'),
  measures: z.array(Measure).min(1).max(20),
  /** Difference and relative change against the period before, and the same one a year before. */
  against: z
    .array(z.enum(['previous', 'yearBefore']))
    .max(2)
    .default([]),
  running: z.boolean().default(false),
  /** Total since the start of the year. */
  toDate: z.boolean().default(false),
  moving: z
    .strictObject({
      k: z.int().min(2).max(1000),
      place: z.enum(['trailing', 'centred']).default('trailing'),
    })
    .optional(),
  /** Index with this period as 100 ("2024", "2024-Q2", "2024-04"); the first period unless given. */
  index: z.strictObject({ base: PeriodName.optional() }).optional(),
});
export type PeriodsSpec = z.infer<typeof PeriodsSpec>;

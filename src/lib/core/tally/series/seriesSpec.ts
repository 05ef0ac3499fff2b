import { z } from 'zod';
import { GroupKey } from '../../arrange/groupKey';
import { Measure } from '../../measure/measure';
import { Calendar, CALENDAR_PERIODS } from '../../table/period';

/** A measure by period of a date: what growth and forecasts stand on. */
export const SeriesSpec = z.strictObject({
  column: z.string(),
  period: z.enum(CALENDAR_PERIODS),
  calendar: Calendar.optional(),
  measure: Measure,
  /** A series for each group of these keys besides the whole. */
  by: z.array(GroupKey).max(4).default([]),
});
export type SeriesSpec = z.infer<typeof SeriesSpec>;

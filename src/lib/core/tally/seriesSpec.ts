import { z } from 'zod';
import { Measure } from '../measure/measure';
import { Calendar, CALENDAR_PERIODS } from '../table/period';

/** A measure by period of a date: what growth and forecasts stand on. */
export const SeriesSpec = z.strictObject({
  column: z.string(),
  period: z.enum(CALENDAR_PERIODS),
  calendar: Calendar.optional(),
  measure: Measure,
});
export type SeriesSpec = z.infer<typeof SeriesSpec>;

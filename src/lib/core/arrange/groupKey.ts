import { z } from 'zod';
import { Calendar, PERIODS } from '../table/period';
import { Bands } from './bands';

/** How the groups of one level follow one another. */
export const GroupOrder = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('label'), descending: z.boolean().default(false) }),
  z.strictObject({ by: z.literal('hand'), labels: z.array(z.string()).max(10_000) }),
  z.strictObject({ by: z.literal('count'), descending: z.boolean().default(true) }),
  /** By one of the ledger's measures, named by its place. */
  z.strictObject({
    by: z.literal('measure'),
    measure: z.int().min(0),
    descending: z.boolean().default(true),
  }),
]);
export type GroupOrder = z.infer<typeof GroupOrder>;

/** One level of grouping. */
export const GroupKey = z.strictObject({
  /** Id or name of a column, or `expression: …`. */
  column: z.string(),
  /** Dates and times only. Without it a date groups by day, and a date with time by its very value. */
  period: z.enum(PERIODS).optional(),
  /** Where years and weeks of the period begin. */
  calendar: Calendar.optional(),
  /** Number columns only: a group for each band instead of each value. */
  bands: Bands.optional(),
  /** Text that differs only in case or outer spaces makes one group. */
  loose: z.boolean().default(false),
  order: GroupOrder.default({ by: 'label', descending: false }),
});
export type GroupKey = z.infer<typeof GroupKey>;

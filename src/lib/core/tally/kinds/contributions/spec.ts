import { z } from 'zod';
import { GroupKey } from '../../../arrange/groupKey';
import { Measure } from '../../../measure/measure';
import { Calendar, CALENDAR_PERIODS } from '../../../table/period';
import { tallyCommon } from '../../spec/common';
import { PeriodName } from '../../series/periodNamed';

/** What the change of a sum, a count or a mean came from, group by group. */
export const ContributionsSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('contributions'),
  /** A sum, a count or a mean. */
  measure: Measure,
  /** Each group of these gave a part of the change. */
  by: z.array(GroupKey).min(1).max(4),
  /** What changed into what: two periods, two groups of a key, or an older reading into this one. */
  between: z.discriminatedUnion('of', [
    z.strictObject({
      of: z.literal('periods'),
      column: z.string(),
      period: z.enum(CALENDAR_PERIODS),
      calendar: Calendar.optional(),
      /** Named "2024", "2024-Q2", "2024-04"; the last two whole periods unless given. */
      from: PeriodName.optional(),
      to: PeriodName.optional(),
    }),
    z.strictObject({
      of: z.literal('groups'),
      key: GroupKey,
      /** Labels of the two groups. */
      from: z.string(),
      to: z.string(),
    }),
    z.strictObject({
      of: z.literal('readings'),
      /** The older reading, by the name the ask gives it. */
      with: z.string(),
      /** The newer one; the list as it stands unless given. */
      to: z.string().optional(),
    }),
  ]),
  order: z.enum(['size', 'label']).default('size'),
  /** Only the groups that gave most; the others stand in one line. */
  top: z.int().min(1).max(10_000).optional(),
});
export type ContributionsSpec = z.infer<typeof ContributionsSpec>;

export type Between = ContributionsSpec['between'];

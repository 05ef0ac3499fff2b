import { z } from 'zod';
import { GroupKey } from '../../../arrange/groupKey';
import { Measure } from '../../../measure/measure';
import { Calendar, CALENDAR_PERIODS } from '../../../table/period';
import { tallyCommon } from '../../spec/common';
import { PeriodName } from '../../series/periodNamed';
import { TIES } from './places';

/** Records, or groups by a measure, in places. */
export const RankingSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('ranking'),
  /** Groups to rank, from the outermost; none that is not in `within`: the records themselves. */
  groups: z.array(GroupKey).max(6).default([]),
  /**
   * How many of the first keys make the parent group that places are given within; as many as there
   * are keys: records are ranked, within the groups of all of them.
   */
  within: z.int().min(0).max(5).default(0),
  /** What groups are ranked by; for records a measure of their column. */
  by: Measure,
  from: z.enum(['highest', 'lowest']).default('highest'),
  ties: z.enum(TIES).default('gap'),
  /** Only the first or the last places; the others stand in one line. */
  top: z.int().min(1).max(1_000_000).optional(),
  bottom: z.int().min(1).max(1_000_000).optional(),
  /** Columns that name a record, besides its number. */
  show: z.array(z.string()).max(40).default([]),
  /** Change of place between the last two periods of a date, or between two by their names ("2024", "2024-Q2"). */
  change: z
    .strictObject({
      column: z.string(),
      period: z.enum(CALENDAR_PERIODS),
      calendar: Calendar.optional(),
      before: PeriodName.optional(),
      after: PeriodName.optional(),
      /** Where records are ranked: the columns that name the same thing in both periods. */
      match: z.array(z.string()).max(10).default([]),
    })
    .optional(),
});
export type RankingSpec = z.infer<typeof RankingSpec>;

/** Whether records are ranked, and not groups. */
export const ranksRecords = ({ groups, within }: Pick<RankingSpec, 'groups' | 'within'>): boolean =>
  within >= groups.length;

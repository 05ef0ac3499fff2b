import { z } from 'zod';
import { KeptBands } from '../../arrange/bands';
import { Measure, MEASURE_KINDS } from '../../measure/measure';
import { Condition } from '../../selection/condition';
import { CALENDAR_PERIODS } from '../../table/period';
import { PeriodName } from '../series/periodNamed';

/** What the analyst has said so far: `median delay by vessel`, or the column whose panel is open. */
export const Wish = z.strictObject({
  /** The column that figures are of. */
  column: z.string().optional(),
  measure: z.enum(MEASURE_KINDS).optional(),
  /** The column by whose total that of `column` is divided: fares per passenger. */
  per: z.string().optional(),
  /** Less that of `per`, and not divided by it. */
  less: z.boolean().optional(),
  /** Columns to group by, from the outermost; an empty list: the whole was asked of. */
  by: z.array(z.string()).max(6).optional(),
  /** How many of the first of `by` places are given within. */
  within: z.int().min(0).max(6).optional(),
  /** The shortest period named. */
  period: z.enum(CALENDAR_PERIODS).optional(),
  /** All periods named, from the longest, where there are several. */
  periods: z.array(z.enum(CALENDAR_PERIODS)).optional(),
  /** The month in which a year starts. */
  yearStartsIn: z.int().min(1).max(12).optional(),
  /** The date by the day of the week. */
  weekday: z.boolean().optional(),
  /** Which end comes first. */
  order: z.enum(['highest', 'lowest']).optional(),
  /** So many of those that come first. */
  first: z.int().min(1).max(1_000_000).optional(),
  /** The next so many periods. */
  ahead: z.int().min(1).max(500).optional(),
  /** From one period to another, by their names. */
  from: PeriodName.optional(),
  to: PeriodName.optional(),
  /** Percentages named. */
  percents: z.array(z.number().min(0).max(100)).max(20).optional(),
  /** Values whose place is asked. */
  stands: z.array(z.number()).max(20).optional(),
  /** Conditions that figures are asked under, each by itself. */
  conditions: z.array(Condition).max(20).optional(),
  /** Besides each of them: those that meet all, those that meet none. */
  both: z.boolean().optional(),
  neither: z.boolean().optional(),
  /** All that is asked, where that is more than one figure, or it is asked under conditions. */
  measures: z.array(Measure).max(20).optional(),
  /** Columns among those that were named without a measure: the list says whether they add up. */
  plain: z.array(z.string()).max(20).optional(),
  /** How often each value occurs, the commonest first. */
  often: z.boolean().optional(),
  /** In bands, however many. */
  bands: z.boolean().optional(),
  /** In bands of this width. */
  width: z.number().positive().optional(),
  /** Edges of bands, rising. */
  edges: z.array(z.number()).min(1).max(100).optional(),
  /** A band table that was named by the name it is kept under. */
  table: KeptBands.optional(),
  /** Since the start of the year. */
  toDate: z.boolean().optional(),
  /** What periods are set against. */
  earlier: z.enum(['previous', 'yearBefore']).optional(),
  /** Periods of this length, one beside the other. */
  beside: z.enum(CALENDAR_PERIODS).optional(),
  /** Means with ± their deviation. */
  withDeviation: z.boolean().optional(),
  /** The other list that this one is set against, by its name. */
  against: z.string().optional(),
  /** The best one of each group. */
  best: z.boolean().optional(),
});
export type Wish = z.infer<typeof Wish>;

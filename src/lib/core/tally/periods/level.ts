import type { Grouping } from '../../measure/grouping';
import { periodOf, periodStart, type Calendar, type CalendarPeriod } from '../../table/period';
import type { DatedLeaves } from '../series';

/** The series of one level: its periods, and their measures with what follows from them. */
export interface Level {
  readonly period: CalendarPeriod;
  readonly first: number;
  readonly records: Float64Array;
  readonly values: readonly Float64Array[];
  readonly followed: readonly (readonly Float64Array[])[];
  readonly partial: { partialFirst: boolean; partialLast: boolean };
}

/** Leaves of the finest level gathered into the periods of another; records without a date into none. */
export function levelGrouping(
  leaves: DatedLeaves,
  finest: CalendarPeriod,
  period: CalendarPeriod,
  calendar: Calendar,
): Grouping {
  const first = periodOf(periodStart(leaves.first, finest, calendar), period, calendar);
  const of = new Int32Array(leaves.length + 1);
  for (let leaf = 0; leaf < leaves.length; leaf++)
    of[leaf] =
      periodOf(periodStart(leaves.first + leaf, finest, calendar), period, calendar) - first;
  of[leaves.length] = -1;
  return { size: of[leaves.length - 1] + 1, of };
}

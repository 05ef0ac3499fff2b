import { standsFor } from './placeInPeriod';
import { TallyRefused } from '../errors';
import { columnFor } from '../expression/columnFor';
import { leafGrouping, type Grouping } from '../measure/grouping';
import type { Measure } from '../measure/measure';
import { computeMeasures } from '../measure/compute';
import type { Condition } from '../scope/condition';
import type { Steps } from '../steps/steps';
import { type Bitset } from '../table/bitset';
import { DAY_MS, isoDate } from '../table/calendar';
import { isText, type ScalarColumn } from '../table/column';
import {
  type Calendar,
  periodEnd,
  periodOf,
  periodStart,
  USUAL_CALENDAR,
  type CalendarPeriod,
} from '../table/period';
import type { Table } from '../table/table';
import { recordsOf, type Base, orderedFor } from './base';
import type { Faults } from './fault';
import { refuseTooMany } from './keys';
import type { SeriesSpec } from './seriesSpec';
import { visitNeeded, type SpecVisitor } from './visit';

export function checkSeries(spec: SeriesSpec, faults: Faults, path: string): void {
  faults.column(`${path}.column`, spec.column, ['date', 'datetime']);
  faults.measure(`${path}.measure`, spec.measure);
}

export const visitSeries = (spec: SeriesSpec, visitor: SpecVisitor, path: string): SeriesSpec => ({
  ...spec,
  column: visitNeeded(spec.column, visitor.column, `${path}.column`),
  measure: visitNeeded(spec.measure, visitor.measure, `${path}.measure`),
});

/** Measures by period, from the first to the last period counted; periods without records included. */
export interface Series {
  readonly column: ScalarColumn;
  readonly period: CalendarPeriod;
  readonly calendar: Calendar;
  /** Number of the first period, as `periodOf` counts. */
  readonly first: number;
  readonly length: number;
  readonly records: Float64Array;
  /** `values[measure][period]`; NaN: none. */
  readonly values: readonly Float64Array[];
  /** Whether the dates of the whole list begin inside the first period, or end inside the last. */
  readonly partialFirst: boolean;
  readonly partialLast: boolean;
  /** Records of the selection without a date. */
  readonly undated: number;
}

const MOST_PERIODS = 200_000;

/** Periods of dates as leaves: one table look-up for each record. */
export interface DatedLeaves {
  readonly column: ScalarColumn;
  readonly first: number;
  readonly length: number;
  /** Leaf of each record; `length` for those without a date. */
  readonly leafOf: Int32Array;
  /** Records of the selection in each leaf. */
  readonly counts: Float64Array;
}

/** @throws TallyRefused where no record has a date, or the periods would be too many */
export function leavesByPeriod(
  table: Table,
  ref: string,
  records: Int32Array,
  period: CalendarPeriod,
  calendar: Calendar,
): DatedLeaves {
  const column = columnFor(table, ref);
  if (isText(column)) throw new TallyRefused(`“${column.name}” is not a date.`);
  const { values } = column;
  const perDay = column.type === 'datetime' ? DAY_MS : 1;
  const whole = records.length === table.length;
  const { min, max } = whole ? rangeOf(column) : rangeAmong(values, records);
  if (min > max)
    throw new TallyRefused(
      `No counted record has a date in “${column.name}”, so there is no period.`,
    );
  const firstDay = Math.floor(min / perDay);
  const lastDay = Math.floor(max / perDay);
  const first = periodOf(firstDay, period, calendar);
  const length = periodOf(lastDay, period, calendar) - first + 1;
  refuseTooMany(length, 'periods', MOST_PERIODS);
  const byDay = new Int32Array(lastDay - firstDay + 1);
  for (let d = 0; d < byDay.length; d++)
    byDay[d] = periodOf(firstDay + d, period, calendar) - first;
  const leafOf = new Int32Array(table.length);
  const counts = new Float64Array(length + 1);
  // Records outside the selection are never looked at; those outside its days stay in leaf 0.
  if (perDay === 1)
    for (let i = 0; i < values.length; i++) {
      const v = values[i];
      const leaf = v === v ? byDay[(v - firstDay) | 0] : length;
      leafOf[i] = leaf;
      counts[leaf]++;
    }
  else
    for (let i = 0; i < values.length; i++) {
      const v = values[i];
      const leaf = v === v ? byDay[(Math.floor(v / perDay) - firstDay) | 0] : length;
      leafOf[i] = leaf;
      counts[leaf]++;
    }
  if (!whole) {
    counts.fill(0);
    for (let k = 0; k < records.length; k++) counts[leafOf[records[k]]]++;
  }
  return { column, first, length, leafOf, counts };
}

interface Range {
  readonly min: number;
  readonly max: number;
}

const ranges = new WeakMap<Float64Array, Range>();

/** Lowest and highest value of a column; found once and kept as long as its values. */
function rangeOf({ values }: ScalarColumn): Range {
  let range = ranges.get(values);
  if (!range) {
    let [min, max] = [Infinity, -Infinity];
    for (let i = 0; i < values.length; i++) {
      if (values[i] < min) min = values[i];
      if (values[i] > max) max = values[i];
    }
    ranges.set(values, (range = { min, max }));
  }
  return range;
}

function rangeAmong(values: Float64Array, records: Int32Array): Range {
  let [min, max] = [Infinity, -Infinity];
  for (let k = 0; k < records.length; k++) {
    const v = values[records[k]];
    if (v < min) min = v;
    if (v > max) max = v;
  }
  return { min, max };
}

/** The series of several measures over a selection. */
export function* computeSeries(
  base: Base,
  selection: Bitset,
  spec: Omit<SeriesSpec, 'measure'>,
  measures: readonly Measure[],
): Steps<Series> {
  const { table } = base;
  const calendar = spec.calendar ?? USUAL_CALENDAR;
  const records = recordsOf(selection);
  const leaves = leavesByPeriod(table, spec.column, records, spec.period, calendar);
  yield undefined;
  const [values] = yield* computeLeaves(
    base,
    selection,
    leaves,
    [leafGrouping(leaves.length + 1)],
    measures,
  );
  const { counts } = leaves;
  return {
    column: leaves.column,
    period: spec.period,
    calendar,
    first: leaves.first,
    length: leaves.length,
    records: counts.subarray(0, leaves.length),
    values: values.map((v) => v.subarray(0, leaves.length)),
    ...coverage(leaves.column, spec.period, calendar, leaves.first, leaves.length),
    undated: counts[leaves.length],
  };
}

/** Measures of dated leaves for several groupings of them. */
export function* computeLeaves(
  base: Base,
  selection: Bitset,
  { leafOf, length }: DatedLeaves,
  groupings: readonly Grouping[],
  measures: readonly Measure[],
): Steps<Float64Array[][]> {
  const records = recordsOf(selection);
  const ordered = orderedFor(base, selection, measures);
  return yield* computeMeasures(
    { table: base.table, records, ordered, leafOf, leaves: length + 1 },
    groupings,
    measures,
  );
}

/** Whether the list's own dates cover the first and the last period only partly. */
export function coverage(
  column: ScalarColumn,
  period: CalendarPeriod,
  calendar: Calendar,
  first: number,
  length: number,
): { partialFirst: boolean; partialLast: boolean } {
  const perDay = column.type === 'datetime' ? DAY_MS : 1;
  const { min, max } = rangeOf(column);
  // A date that stands for a whole month covers it, whatever day it is written as.
  const of = standsFor(column, calendar);
  const own = column.type === 'date' && column.grain !== 'day' ? column.calendar : calendar;
  const start = periodStart(periodOf(Math.floor(min / perDay), of, own), of, own);
  const end = periodEnd(periodOf(Math.floor(max / perDay), of, own), of, own);
  return {
    partialFirst: start > periodStart(first, period, calendar),
    partialLast: end < periodEnd(first + length - 1, period, calendar),
  };
}

/** What a record must meet to be dated in a period. */
export const periodCondition = (
  ref: string,
  index: number,
  period: CalendarPeriod,
  calendar: Calendar,
): Condition => ({
  kind: 'leaf',
  column: ref,
  not: false,
  test: {
    test: 'between',
    from: isoDate(periodStart(index, period, calendar)),
    to: isoDate(periodEnd(index, period, calendar)),
    fromIn: true,
    toIn: true,
  },
});

import { TallyRefused } from '../../errors';
import { columnFor } from '../../expression/columnFor';
import { inStretches, type Task } from '../../task/task';
import type { Grouping } from '../../measure/grouping';
import { DAY_MS } from '../../table/calendar';
import { isText, type ScalarColumn } from '../../table/column';
import { periodOf, type Calendar, type CalendarPeriod } from '../../table/period';
import type { Table } from '../../table/table';
import type { Days } from './coverage';
import { refuseTooMany } from '../groups/keys';
import { rangeAmong, rangeInSteps } from '../input/range';

const MOST_PERIODS = 200_000;

/**
 * Stretches of days as leaves: one table look-up for each record. They are the periods of the finest
 * level, cut once more where a part of one is compared.
 */
export interface DatedLeaves {
  readonly column: ScalarColumn;
  readonly calendar: Calendar;
  readonly length: number;
  /** A day of each leaf, its first but for the first leaf. */
  readonly days: Int32Array;
  /** Leaf of each record; `length` for those without a date. */
  readonly leafOf: Int32Array;
  /** Records of the selection in each leaf, and those without a date. */
  readonly counts: Float64Array;
}

/** First and last day among some records. @throws TallyRefused where none has a date */
export function* daysOf(table: Table, ref: string, records: Int32Array): Task<Days> {
  const column = dateColumn(table, ref);
  const perDay = column.type === 'datetime' ? DAY_MS : 1;
  const { min, max } =
    records.length === table.length
      ? yield* rangeInSteps(column)
      : yield* rangeAmong(column.values, records);
  if (min > max)
    throw new TallyRefused(
      `No counted record has a date in “${column.name}”, so there is no period.`,
    );
  return { from: Math.floor(min / perDay), to: Math.floor(max / perDay) };
}

export function dateColumn(table: Table, ref: string): ScalarColumn {
  const column = columnFor(table, ref);
  if (isText(column)) throw new TallyRefused(`“${column.name}” is not a date.`);
  return column;
}

/**
 * @param cuts days at which a leaf begins besides the first days of periods
 * @throws TallyRefused where no record has a date, or the periods would be too many
 */
export function* leavesByPeriod(
  table: Table,
  ref: string,
  records: Int32Array,
  period: CalendarPeriod,
  calendar: Calendar,
  cuts: ReadonlySet<number> = new Set(),
): Task<DatedLeaves> {
  const column = dateColumn(table, ref);
  const { from, to } = yield* daysOf(table, ref, records);
  yield undefined;
  const first = periodOf(from, period, calendar);
  refuseTooMany(periodOf(to, period, calendar) - first + 1, 'periods', MOST_PERIODS);
  const byDay = new Int32Array(to - from + 1);
  const days: number[] = [from];
  for (let d = 1; d < byDay.length; d++) {
    const day = from + d;
    if (cuts.has(day) || periodOf(day, period, calendar) !== periodOf(day - 1, period, calendar))
      days.push(day);
    byDay[d] = days.length - 1;
  }
  const length = days.length;
  const { values } = column;
  const perDay = column.type === 'datetime' ? DAY_MS : 1;
  const leafOf = new Int32Array(table.length);
  const counts = new Int32Array(length + 1);
  // Records outside the selection are never looked at; those outside its days stay in leaf 0.
  yield* inStretches(values.length, (begin, end) => {
    deal({ values, perDay, byDay, from, none: length, leafOf, counts }, begin, end);
  });
  const { weights } = table;
  if (weights || records.length !== table.length) {
    counts.fill(0);
    yield* inStretches(records.length, (begin, end) => {
      for (let k = begin; k < end; k++)
        counts[leafOf[records[k]]] += weights ? weights[records[k]] : 1;
    });
  }
  return {
    column,
    calendar,
    length,
    days: new Int32Array(days),
    leafOf,
    counts: new Float64Array(counts),
  };
}

/** Each record of a stretch to the leaf of its day; those without a date to one of their own. */
function deal(
  {
    values,
    perDay,
    byDay,
    from,
    none,
    leafOf,
    counts,
  }: {
    readonly values: Float64Array;
    readonly perDay: number;
    readonly byDay: Int32Array;
    readonly from: number;
    readonly none: number;
    readonly leafOf: Int32Array;
    readonly counts: Int32Array;
  },
  begin: number,
  end: number,
): void {
  // A loop of its own for whole days, which most dates are.
  if (perDay === 1)
    for (let i = begin; i < end; i++) {
      const v = values[i];
      const leaf = v === v ? byDay[(v - from) | 0] : none;
      leafOf[i] = leaf;
      counts[leaf]++;
    }
  else
    for (let i = begin; i < end; i++) {
      const v = values[i];
      const leaf = v === v ? byDay[(Math.floor(v / perDay) - from) | 0] : none;
      leafOf[i] = leaf;
      counts[leaf]++;
    }
}

/** Leaves gathered into the periods of a level, from the first counted; those without a date into none. */
export function levelGrouping(leaves: DatedLeaves, period: CalendarPeriod): Grouping {
  const { days, length, calendar } = leaves;
  const first = periodOf(days[0], period, calendar);
  const of = new Int32Array(length + 1);
  for (let leaf = 0; leaf < length; leaf++)
    of[leaf] = periodOf(days[leaf], period, calendar) - first;
  of[length] = -1;
  return { size: of[length - 1] + 1, of };
}

/** The number of the first period of a level. */
export const firstPeriod = ({ days, calendar }: DatedLeaves, period: CalendarPeriod): number =>
  periodOf(days[0], period, calendar);

/** Leaves within some stretches of days, a group for each; all others in none. */
export function stretchGrouping(
  { days, length }: DatedLeaves,
  stretches: readonly Days[],
): Grouping {
  const of = new Int32Array(length + 1).fill(-1);
  for (let leaf = 0; leaf < length; leaf++)
    of[leaf] = stretches.findIndex(({ from, to }) => days[leaf] >= from && days[leaf] <= to);
  return { size: stretches.length, of };
}

/** The records without a date as a group of its own. */
export function undatedGrouping({ length }: DatedLeaves): Grouping {
  const of = new Int32Array(length + 1).fill(-1);
  of[length] = 0;
  return { size: 1, of };
}

/** Days at which such stretches begin, and those behind their ends. */
export const cutsOf = (stretches: readonly Days[]): Set<number> =>
  new Set(stretches.flatMap(({ from, to }) => [from, to + 1]));

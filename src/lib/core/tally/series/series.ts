import { groupKeys, groupPath } from '../../arrange/tree';
import { totalGrouping, type Grouping } from '../../measure/grouping';
import type { Condition } from '../../selection/condition';
import { inStretches, type Task } from '../../task/task';
import { type Bitset } from '../../table/bitset';
import { isoDate } from '../../table/calendar';
import type { ScalarColumn } from '../../table/column';
import {
  type Calendar,
  periodEnd,
  periodStart,
  USUAL_CALENDAR,
  type CalendarPeriod,
} from '../../table/period';
import { recordsOf, type TallyInput } from '../input/input';
import { coverage, type Days } from './coverage';
import { crossed, datedGroups } from './datedGroups';
import { firstPeriod, leavesByPeriod, levelGrouping, undatedGrouping } from './datedLeaves';
import type { Faults } from '../spec/fault';
import { GroupWalk } from '../groups/groupWalk';
import { checkKey, groupWhere } from '../groups/keys';
import { computeInfluences, type Influence } from '../trust/influence';
import type { Figure } from '../answer/result';
import type { SeriesSpec } from './seriesSpec';
import { visitAll, visitNeeded, type SpecVisitor } from '../spec/visit';
import type { Warning } from '../trust/warnings';

export function checkSeries(spec: SeriesSpec, faults: Faults, path: string): void {
  faults.column(`${path}.column`, spec.column, ['date', 'datetime']);
  faults.measure(`${path}.measure`, spec.measure);
  spec.by.forEach((key, k) => checkKey(key, faults, `${path}.by[${k}]`));
}

export const visitSeries = (spec: SeriesSpec, visitor: SpecVisitor, path: string): SeriesSpec => ({
  ...spec,
  column: visitNeeded(spec.column, visitor.column, `${path}.column`),
  measure: visitNeeded(spec.measure, visitor.measure, `${path}.measure`),
  by: visitAll(spec.by, visitor.key, `${path}.by`),
});

/** A measure by period, from the first to the last period counted; periods without records included. */
export interface Series {
  readonly column: ScalarColumn;
  readonly period: CalendarPeriod;
  readonly calendar: Calendar;
  /** Number of the first period, as `periodOf` counts. */
  readonly first: number;
  readonly length: number;
  readonly records: Float64Array;
  /** By period; NaN: none. */
  readonly values: Float64Array;
  /** The record that the figure of a period rests on most. */
  rests(period: number): Influence | null;
  /** Whether the dates of the whole list begin inside the first period, or end inside the last. */
  readonly partialFirst: boolean;
  readonly partialLast: boolean;
  /** Records of the selection without a date. */
  readonly undated: number;
}

/** The series of one group, over the calendar of the whole. */
export interface GroupSeries {
  /** Labels of its keys, from the outermost. */
  readonly path: readonly string[];
  readonly keys: readonly Figure[];
  readonly where: Condition;
  readonly series: Series;
}

/** The series of the whole and of each group, all over one calendar. */
export interface SeriesSet {
  readonly whole: Series;
  /** In label order; empty without keys. */
  readonly groups: readonly GroupSeries[];
  readonly warnings: readonly Warning[];
}

/** Series made between two pauses: each is an object of its own. */
const SERIES = 1024;

/**
 * The series of a measure over a selection, from one pass over its records.
 * @throws TallyRefused where no record has a date, or groups or periods would be too many
 */
export function* computeSeries(
  input: TallyInput,
  selection: Bitset,
  spec: SeriesSpec,
): Task<SeriesSet> {
  const { column: ref, period, calendar = USUAL_CALENDAR, measure, by } = spec;
  const leaves = yield* leavesByPeriod(input.table, ref, recordsOf(selection), period, calendar);
  yield undefined;
  const dated = yield* datedGroups(input, selection, by, leaves, [measure]);
  const { leafed, levels, tree } = dated;
  const periods = levelGrouping(leaves, period);
  const undated = undatedGrouping(leaves);
  const measures = [measure, { kind: 'records' } as const];
  const all = totalGrouping(leaves.length + 1);
  const deepest = tree.levels.length;
  // The series of the whole and of the deepest groups, then the totals that groups are ordered by.
  const groupings: Grouping[] = [];
  for (const level of [0, deepest])
    for (const dates of [periods, undated])
      groupings.push(yield* crossed(dated, levels[level], dates));
  for (const level of levels.slice(1)) groupings.push(yield* crossed(dated, level, all));
  const { figures, influences } = yield* computeInfluences(leafed, groupings, measures);
  const first = firstPeriod(leaves, period);
  const covered = coverage(leaves.column, period, calendar, first, periods.size);
  const seriesOf = (side: number, group: number): Series => {
    const from = group * periods.size;
    const part = (m: number): Float64Array =>
      figures[side * 2][m].subarray(from, from + periods.size);
    return {
      column: leaves.column,
      period,
      calendar,
      first,
      length: periods.size,
      records: part(1),
      values: part(0),
      rests: (k) => influences.at(side * 2, 0, from + k),
      ...covered,
      undated: figures[side * 2 + 1][1][group],
    };
  };
  const walk = yield* GroupWalk.of(
    tree,
    by.map((key) => key.order),
    figures.slice(4).map(([values, records]) => ({ records, measures: [values] })),
  );
  const groups: GroupSeries[] = [];
  yield* inStretches(
    walk.length,
    (from, to) => {
      for (let n = Math.max(1, from); n < to; n++) {
        const { level, group } = walk.at(n);
        if (level !== deepest - 1) continue;
        groups.push({
          path: groupPath(tree, level, group),
          keys: groupKeys(tree, level, group),
          where: groupWhere(tree, level, group),
          series: seriesOf(1, group),
        });
      }
    },
    SERIES,
  );
  return { whole: seriesOf(0, 0), groups, warnings: dated.warnings };
}

/** What a record must meet to be dated within some days. */
export const daysCondition = (ref: string, { from, to }: Days): Condition => ({
  kind: 'leaf',
  column: ref,
  not: false,
  test: { test: 'between', from: isoDate(from), to: isoDate(to), fromIn: true, toIn: true },
});

/** What a record must meet to be dated in a period. */
export const periodCondition = (
  ref: string,
  index: number,
  period: CalendarPeriod,
  calendar: Calendar,
): Condition =>
  daysCondition(ref, {
    from: periodStart(index, period, calendar),
    to: periodEnd(index, period, calendar),
  });

import { groupPath } from '../../../arrange/tree';
import type { Condition } from '../../../selection/condition';
import { groupWhere, joined } from '../../groups/keys';
import { inStretches, STRIDE, type Task } from '../../../task/task';
import type { RowPlan } from '../../answer/answer';
import type { Figure, FigureRow } from '../../answer/result';
import type { ComputedSeries } from './compute';
import {
  periodNumber,
  periodRow,
  seriesPlan,
  undatedPlans,
  walkPeriods,
  type PeriodRows,
} from './rows';

/** Labels of periods: the words, the first and the last day. */
const SPAN = 3;
const NO_SPAN: readonly null[] = [null, null, null];

/** The same periods for each group: series within groups, or groups within each of the periods. */
export const groupedRows = (made: PeriodRows): Task<RowPlan[]> =>
  made.spec.nest === 'periods' ? seriesRows(made) : slicedRows(made);

/** A group of the walk: its labels, its keys, and what its records meet. */
interface Group {
  readonly row: number;
  /** Level from 0; −1 is the whole. */
  readonly level: number;
  readonly labels: readonly (string | null)[];
  readonly keys: readonly Figure[];
  readonly where: Condition | null;
}

function* groupsOf({ computed: { walk } }: PeriodRows): Task<Group[]> {
  const depth = walk.tree.levels.length;
  const groupOf = (row: number): Group => {
    const { level, group } = walk.at(row);
    const path = level < 0 ? [] : groupPath(walk.tree, level, group);
    return {
      row,
      level,
      labels: Array.from({ length: depth }, (_, k) => path[k] ?? null),
      keys: walk.keys(row),
      where: level < 0 ? null : groupWhere(walk.tree, level, group),
    };
  };
  const groups: Group[] = [];
  yield* inStretches(
    walk.length,
    (from, to) => {
      for (let row = from; row < to; row++) groups.push(groupOf(row));
    },
    STRIDE >> 6,
  );
  return groups;
}

/** What both meet, the records of figures set against other periods with them. */
function within<R extends Pick<FigureRow, 'where' | 'instead'>>(
  row: R,
  group: Condition | null,
): R {
  const both = (where: Condition): Condition => (group ? joined([group, where]) : where);
  return {
    ...row,
    ...(row.where && { where: both(row.where) }),
    ...(row.instead && {
      instead: row.instead.map((part) => ({ ...part, where: both(part.where) })),
    }),
  };
}

/** Groups depth first; the deepest ones hold their periods. */
function* seriesRows(made: PeriodRows): Task<RowPlan[]> {
  const { spec, computed } = made;
  const { walk } = computed;
  const depth = walk.tree.levels.length;
  const plans: RowPlan[] = [];
  const placeOf: number[] = [];
  for (const group of yield* groupsOf(made)) {
    // What follows from the figures of each period is worked out here, group by group.
    yield undefined;
    const series = computed.series(group.row);
    const place = plans.length;
    placeOf[group.row] = place;
    const whole = group.level < 0 ? -1 : placeOf[walk.partOf(group.row)];
    plans.push(
      seriesPlan(
        made,
        {
          kind: 'total',
          level: group.level + 1,
          keys: [...group.keys],
          ...(group.where && { where: group.where, partOf: whole }),
        },
        [
          ...(group.level < 0 ? ['All groups', ...group.labels.slice(1)] : group.labels),
          ...NO_SPAN,
        ],
        series,
      ),
    );
    if (group.level !== depth - 1) continue;
    walkPeriods(
      series,
      computed,
      (level, l, k, partOf) =>
        plans.push({
          partOf,
          make() {
            const row = within(periodRow(made, level, k), group.where);
            return {
              ...row,
              kind: l === spec.levels.length - 1 ? 'group' : 'total',
              level: depth + l + 1,
              keys: [...group.keys, ...(row.keys ?? [])],
              cells: [...group.labels, ...row.cells],
              partOf,
            };
          },
          number: (c) => periodNumber(made, level, k, c),
        }) - 1,
      place,
    );
    plans.push(
      ...undatedPlans(made, series, [...group.labels, 'no date', null, null], {
        partOf: place,
        level: depth + 1,
        keys: group.keys,
        group: group.where,
      }),
    );
  }
  return plans;
}

/** Periods level by level; the shortest ones hold the groups that have records in them. */
function* slicedRows(made: PeriodRows): Task<RowPlan[]> {
  const { spec, computed } = made;
  const { whole, walk } = computed;
  const depth = walk.tree.levels.length;
  const groups = (yield* groupsOf(made)).slice(1);
  const series: ComputedSeries[] = [];
  for (const group of groups) {
    series.push(computed.series(group.row));
    yield undefined;
  }
  const blank = Array.from({ length: depth }, () => null);
  const plans: RowPlan[] = [
    seriesPlan(
      made,
      { kind: 'total', level: 0, keys: [] },
      ['All periods', null, null, ...blank],
      whole,
    ),
  ];
  /** The groups inside a row of a period. */
  const inside = (l: number, k: number, place: number): void => {
    const at: number[] = [];
    groups.forEach((group, g) => {
      const level = series[g].levels[l];
      if (level.records[k] === 0) return;
      const parent = walk.partOf(group.row);
      const partOf = parent === 0 ? place : at[parent];
      at[group.row] =
        plans.push({
          partOf,
          make() {
            const row = within(periodRow(made, level, k), group.where);
            return {
              ...row,
              kind: group.level === depth - 1 ? 'group' : 'total',
              level: spec.levels.length + group.level + 1,
              keys: [...(row.keys ?? []), ...group.keys],
              cells: [...row.cells.slice(0, SPAN), ...group.labels, ...row.cells.slice(SPAN)],
              partOf,
            };
          },
          number: (c) => periodNumber(made, level, k, c),
        }) - 1;
    });
  };
  walkPeriods(
    whole,
    computed,
    (level, l, k, partOf) => {
      const place =
        plans.push({
          partOf,
          make() {
            const row = periodRow(made, level, k);
            return {
              ...row,
              kind: 'total',
              level: l + 1,
              cells: [...row.cells.slice(0, SPAN), ...blank, ...row.cells.slice(SPAN)],
              partOf,
            };
          },
          number: (c) => periodNumber(made, level, k, c),
        }) - 1;
      if (l === spec.levels.length - 1) inside(l, k, place);
      return place;
    },
    0,
  );
  plans.push(...undatedPlans(made, whole, ['no date', null, null, ...blank]));
  return plans;
}

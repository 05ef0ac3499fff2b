import type { Grouping } from '../../measure/grouping';
import { addUp } from '../../measure/grouping';
import { MEASURES, type Measure } from '../../measure/measure';
import type { Steps } from '../../steps/steps';
import {
  periodEnd,
  periodOf,
  periodStart,
  USUAL_CALENDAR,
  type Calendar,
  type CalendarPeriod,
} from '../../table/period';
import { namesOf } from '../../table/table';
import { tableOf } from '../answer';
import { recordsOf, selectionOf, type Base } from '../base';
import { figureFrom, measureColumns, shownColumn, RECORDS_COLUMN } from '../figure';
import { periodCells, periodColumns, periodKeys } from '../periodLabels';
import { nameIn, type TallyAnswer, type TallyKind } from '../kind';
import { figureOf, type Figure, type FigureColumn, type FigureRow, type Mark } from '../result';
import {
  coverage,
  leavesByPeriod,
  periodCondition,
  computeLeaves,
  type DatedLeaves,
} from '../series';
import { visitAll, visitNeeded } from '../visit';
import { yearOf } from './follow';
import { follow, followColumns } from './followColumns';
import { levelGrouping, type Level } from './level';
import { baseNote, notes } from './notes';
import { periodsFact } from './fact';
import { periodsSentence } from './sentence';
import type { PeriodsSpec } from './spec';

/** Which periods hold which others without a rest. */
const HOLDS: Record<CalendarPeriod, readonly CalendarPeriod[]> = {
  year: ['half', 'quarter', 'month', 'day'],
  half: ['quarter', 'month', 'day'],
  quarter: ['month', 'day'],
  month: ['day'],
  week: ['day'],
  day: [],
};

const PLURAL: Record<CalendarPeriod, string> = {
  day: 'days',
  week: 'weeks',
  month: 'months',
  quarter: 'quarters',
  half: 'half-years',
  year: 'years',
};

export const periodsKind: TallyKind<PeriodsSpec> = {
  check(spec, faults, path) {
    faults.column(`${path}.column`, spec.column, ['date', 'datetime']);
    spec.measures.forEach((m, k) => faults.measure(`${path}.measures[${k}]`, m));
    if ((spec.running || spec.toDate) && !spec.measures.some((m) => MEASURES[m.kind].adds))
      faults.add(
        `${path}.${spec.running ? 'running' : 'toDate'}`,
        'None of the measures adds up, so there is no total of it.',
        'Ask for a sum or a count, or for a moving average.',
      );
    spec.levels.forEach((level, k) => {
      const above = spec.levels[k - 1];
      if (above && !HOLDS[above].includes(level))
        faults.add(
          `${path}.levels[${k}]`,
          `${PLURAL[level]} do not fit into ${PLURAL[above]}.`,
          above === level
            ? 'Name each level once.'
            : `Go from longer to shorter: ${['year', 'quarter', 'month', 'day'].join(', ')}; or week, day.`,
        );
    });
  },
  visit(spec, visitor, path) {
    return {
      ...spec,
      column: visitNeeded(spec.column, visitor.column, `${path}.column`),
      measures: visitAll(spec.measures, visitor.measure, `${path}.measures`),
    };
  },
  compute: computePeriods,
  sentence: periodsSentence,
  fact: periodsFact,
};

function* computePeriods(base: Base, spec: PeriodsSpec): Steps<TallyAnswer> {
  const { table } = base;
  const calendar = spec.calendar ?? USUAL_CALENDAR;
  const selection = selectionOf(base, spec.scope);
  const records = recordsOf(selection);
  const finest = spec.levels[spec.levels.length - 1];
  const leaves = leavesByPeriod(table, spec.column, records, finest, calendar);
  yield undefined;
  const groupings = spec.levels.map((period) => levelGrouping(leaves, finest, period, calendar));
  const total: Grouping = { size: 1, of: new Int32Array(leaves.length + 1) };
  const figures = yield* computeLeaves(
    base,
    selection,
    leaves,
    [...groupings, total],
    spec.measures,
  );
  const { counts } = leaves;
  const levels = spec.levels.map((period, l): Level => {
    const first = periodOf(periodStart(leaves.first, finest, calendar), period, calendar);
    return {
      period,
      first,
      records: addUp(counts, groupings[l]),
      values: figures[l],
      followed: figures[l].map((values, k) =>
        follow(spec, values, MEASURES[spec.measures[k].kind].adds, first, period, calendar),
      ),
      partial: coverage(leaves.column, period, calendar, first, groupings[l].size),
    };
  });
  yield undefined;
  const undated = counts[leaves.length];
  const shown = spec.measures.map((m) => shownColumn(m, table));
  const extras = followColumns(spec);
  const totals = figures[figures.length - 1];
  const rows: FigureRow[] = [
    {
      kind: 'total',
      level: 0,
      keys: [],
      cells: [
        'All periods',
        null,
        null,
        records.length,
        ...spec.measures.flatMap((m, k): Figure[] => [
          figureFrom(m, shown[k], totals[k][0]),
          ...extras.map(() => null),
        ]),
      ],
    },
  ];
  const walk = (l: number, from: number, to: number, parent: number): void => {
    const level = levels[l];
    if (!level) return;
    for (let k = from; k < to; k++) {
      const place = rows.length;
      const index = level.first + k;
      rows.push({ ...periodRow(base, spec, level, k, l, calendar, shown), partOf: parent });
      const below = levels[l + 1];
      if (!below) continue;
      const start =
        periodOf(periodStart(index, level.period, calendar), below.period, calendar) - below.first;
      const end =
        periodOf(periodEnd(index, level.period, calendar), below.period, calendar) -
        below.first +
        1;
      walk(l + 1, Math.max(0, start), Math.min(below.records.length, end), place);
    }
  };
  walk(0, 0, levels[0].records.length, 0);
  if (undated > 0) rows.push(yield* undatedRow(base, spec, leaves, undated, extras.length));
  const measured = measureColumns(spec.measures, table, records);
  const columns: FigureColumn[] = [
    ...periodColumns(finest, calendar),
    RECORDS_COLUMN,
    ...measured.flatMap((column) => [column, ...extras.map((extra) => extra(column))]),
  ];
  return {
    tables: [tableOf({ name: 'main', caption: 'Periods', labels: 3, columns, rows })],
    warnings: [
      ...notes(levels, undated, calendar, nameIn(namesOf(table), spec.column)),
      ...baseNote(spec, levels, calendar),
    ],
  };
}

function periodRow(
  base: Base,
  spec: PeriodsSpec,
  level: Level,
  k: number,
  l: number,
  calendar: Calendar,
  shown: readonly ReturnType<typeof shownColumn>[],
): FigureRow {
  const { period, first, partial } = level;
  const index = first + k;
  const marks: Mark[] = [];
  if (k === 0 && partial.partialFirst)
    marks.push({ kind: 'partial', says: 'The data begin inside this period.' });
  if (k === level.records.length - 1 && partial.partialLast)
    marks.push({ kind: 'partial', says: 'The data end inside this period.' });
  return {
    kind: l === spec.levels.length - 1 ? 'group' : 'total',
    level: l + 1,
    keys: periodKeys(index, period, calendar),
    cells: [
      ...periodCells(index, period, calendar),
      level.records[k],
      ...spec.measures.flatMap((m: Measure, j) => [
        figureFrom(m, shown[j], level.values[j][k]),
        ...level.followed[j].map((values) => figureOf(values[k])),
      ]),
    ],
    where: periodCondition(spec.column, index, period, calendar),
    ...(marks.length && { marks }),
    run: yearOf(index, period, calendar),
  };
}

/** Records without a date belong to no period, and are still counted. */
function* undatedRow(
  base: Base,
  spec: PeriodsSpec,
  leaves: DatedLeaves,
  undated: number,
  extras: number,
): Steps<FigureRow> {
  const only: Grouping = { size: 1, of: new Int32Array(leaves.length + 1).fill(-1) };
  only.of[leaves.length] = 0;
  const [values] = yield* computeLeaves(
    base,
    selectionOf(base, spec.scope),
    leaves,
    [only],
    spec.measures,
  );
  return {
    kind: 'outside',
    level: 1,
    keys: [null, null, null],
    cells: [
      'no date',
      null,
      null,
      undated,
      ...spec.measures.flatMap((m, k): Figure[] => [
        figureFrom(m, shownColumn(m, base.table), values[k][0]),
        ...Array.from({ length: extras }, () => null),
      ]),
    ],
    where: {
      kind: 'any',
      not: false,
      parts: [
        { kind: 'leaf', column: spec.column, not: false, test: { test: 'blank' } },
        { kind: 'leaf', column: spec.column, not: false, test: { test: 'unread' } },
      ],
    },
    partOf: 0,
  };
}

import { MEASURES } from '../../../measure/measure';
import type { Task } from '../../../task/task';
import type { CalendarPeriod } from '../../../table/period';
import { namesOf } from '../../../table/table';
import { plannedTable, type AnswerTable, type RowPlan } from '../../answer/answer';
import { recordsOf, selectionOf, type TallyInput } from '../../input/input';
import { labelColumns, measureColumns, RECORDS_COLUMN } from '../../answer/figure';
import { checkKey, checkOrder } from '../../groups/keys';
import { nameIn, type TallyAnswer, type TallyKind } from '../../kind/kind';
import { checkPeriodName } from '../../series/periodNamed';
import { PERIOD_WORDS, PERIODS_WORDS } from '../../series/periodWords';
import { periodColumns } from '../../series/periodLabels';
import type { FigureColumn } from '../../answer/result';
import { visitAll, visitMeasures, visitNeeded, withOrderMoved } from '../../spec/visit';
import { computePeriods, type ComputedPeriods } from './compute';
import { followColumns } from './followColumns';
import { groupedRows } from './groupedRows';
import { notes, baseNote } from './notes';
import { periodsFact } from './fact';
import { periodRows, type PeriodRows } from './rows';
import { periodsSentence } from './sentence';
import type { PeriodsSpec } from './spec';
import { wholeRows } from './wholeRows';

/** Which periods hold which others without a rest. */
const HOLDS: Record<CalendarPeriod, readonly CalendarPeriod[]> = {
  year: ['half', 'quarter', 'month', 'day'],
  half: ['quarter', 'month', 'day'],
  quarter: ['month', 'day'],
  month: ['day'],
  week: ['day'],
  day: [],
};

export const periodsKind: TallyKind<PeriodsSpec> = {
  inParts: () => true,
  check(spec, faults, path) {
    faults.column(`${path}.column`, spec.column, ['date', 'datetime']);
    spec.measures.forEach((m, k) => faults.measure(`${path}.measures[${k}]`, m));
    spec.by.forEach((key, k) => {
      checkKey(key, faults, `${path}.by[${k}]`);
      checkOrder(key.order, spec.measures.length, faults, `${path}.by[${k}].order`);
    });
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
          `${PERIODS_WORDS[level]} do not fit into ${PERIODS_WORDS[above]}.`,
          above === level
            ? 'Name each level once.'
            : `Go from longer to shorter: ${['year', 'quarter', 'month', 'day'].join(', ')}; or week, day.`,
        );
    });
    checkPeriodName(
      spec.index?.base,
      spec.levels[spec.levels.length - 1],
      spec.calendar,
      faults,
      `${path}.index.base`,
    );
  },
  visit(spec, visitor, path) {
    const { kept, places } = visitMeasures(spec.measures, visitor, `${path}.measures`);
    return {
      ...spec,
      column: visitNeeded(spec.column, visitor.column, `${path}.column`),
      by: visitAll(spec.by, visitor.key, `${path}.by`).map((key) => withOrderMoved(key, places)),
      measures: kept,
    };
  },
  *compute(input, spec): Task<TallyAnswer> {
    return yield* periodTables(input, spec, yield* computePeriods(input, spec));
  },
  sentence: periodsSentence,
  fact: periodsFact,
  shape: ({ by }) => (by.length ? { of: 'm1', as: 'series', reach: [] } : null),
  drawnWhole: () => ['main'],
};

/** The periods of the whole, and where keys were given those of each group. */
function* periodTables(
  input: TallyInput,
  spec: PeriodsSpec,
  computed: ComputedPeriods,
): Task<TallyAnswer> {
  const { table } = input;
  const { calendar, levels, walk, whole } = computed;
  const extras = followColumns(spec);
  const measured = yield* measureColumns(
    spec.measures,
    table,
    recordsOf(selectionOf(input, spec.scope)),
  );
  const figures = [
    RECORDS_COLUMN,
    ...measured.flatMap((column) => [column, ...extras.map((extra) => extra.column(column))]),
  ];
  const periods = periodColumns(levels[levels.length - 1].period, calendar);
  const tables: AnswerTable[] = [];
  function* add(
    about: Pick<AnswerTable, 'name' | 'caption'>,
    labels: FigureColumn[],
    plansOf: (made: PeriodRows) => Task<RowPlan[]>,
  ): Task<void> {
    const made = periodRows(input, spec, computed, extras, labels, figures);
    const plans = yield* plansOf(made);
    tables.push(
      plannedTable({ ...about, labels: labels.length, columns: [...made.columns] }, plans),
    );
  }
  yield* add({ name: 'main', caption: 'Periods' }, periods, wholeRows);
  yield undefined;
  tables[0] = { ...tables[0], levels: levels.map(({ period }) => PERIOD_WORDS[period]) };
  if (spec.by.length) {
    const groups = labelColumns(spec.by, walk.tree.keys, table);
    yield* add(
      { name: 'groups', caption: 'Periods by groups' },
      spec.nest === 'periods' ? [...groups, ...periods] : [...periods, ...groups],
      groupedRows,
    );
  }
  yield undefined;
  return {
    tables,
    warnings: [
      ...computed.warnings,
      ...notes(computed, whole, nameIn(namesOf(table), spec.column)),
      ...baseNote(spec, computed),
    ],
  };
}

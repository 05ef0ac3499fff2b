import type { Condition } from '../../../selection/condition';
import { periodEnd, periodOf, periodStart } from '../../../table/period';
import type { RowPlan } from '../../answer/answer';
import type { TallyInput } from '../../input/input';
import { changeMark } from '../../trust/changeMark';
import type { Column } from '../../../table/column';
import { figureFrom, shownColumn } from '../../answer/figure';
import { joined } from '../../groups/keys';
import { periodCells, periodKeys } from '../../series/periodLabels';
import { deviationsOf, influenceMarks, type Influence } from '../../trust/influence';
import {
  figureOf,
  marked,
  type Figure,
  type FigureColumn,
  type FigureRow,
  type Mark,
} from '../../answer/result';
import type { Days } from '../../series/coverage';
import { daysOfPeriod } from '../../series/comparableDays';
import { daysCondition, periodCondition } from '../../series/series';
import { anyOf } from '../../spec/whereCondition';
import type { ComputedPeriods, ComputedSeries, Level } from './compute';
import { yearOf } from './follow';
import type { Follower } from './followColumns';
import { likeWords } from './notes';
import { placeBefore } from './like';
import type { PeriodsSpec } from './spec';

/** What the rows of periods are made from. */
export interface PeriodRows {
  readonly input: TallyInput;
  readonly spec: PeriodsSpec;
  readonly computed: ComputedPeriods;
  readonly extras: readonly Follower[];
  readonly columns: readonly FigureColumn[];
  /** The place of the count of records, behind the labels. */
  readonly firstFigure: number;
  /** By measure, the column whose values its figures are. */
  readonly shown: readonly (Column | null)[];
}

/** What rows are made from, with these labels before the figures. */
export const periodRows = (
  input: TallyInput,
  spec: PeriodsSpec,
  computed: ComputedPeriods,
  extras: readonly Follower[],
  labels: readonly FigureColumn[],
  figures: readonly FigureColumn[],
): PeriodRows => ({
  input,
  spec,
  computed,
  extras,
  columns: [...labels, ...figures],
  firstFigure: labels.length,
  shown: spec.measures.map((m) => shownColumn(m, input.table)),
});

/** The place of a measure's figure; those that follow from it stand behind it. */
const measureAt = ({ firstFigure, extras }: PeriodRows, m: number): number =>
  firstFigure + 1 + m * (1 + extras.length);

/** The count and the measures of a total, without anything that follows from periods. */
const totalCells = (
  { spec, shown, extras }: PeriodRows,
  records: number,
  values: readonly number[],
): Figure[] => [
  records,
  ...spec.measures.flatMap((m, k): Figure[] => [
    figureFrom(m, shown[k], values[k]),
    ...extras.map(() => null),
  ]),
];

/** The number of such a total in a column. */
function totalNumber(
  { firstFigure, extras }: PeriodRows,
  column: number,
  records: number,
  values: readonly number[],
): number {
  const at = column - firstFigure - 1;
  if (at < 0) return at === -1 ? records : NaN;
  return at % (1 + extras.length) === 0 ? values[at / (1 + extras.length)] : NaN;
}

/** The total of a series. */
export const seriesPlan = (
  made: PeriodRows,
  row: Omit<FigureRow, 'cells' | 'marks'>,
  labels: readonly Figure[],
  series: ComputedSeries,
): RowPlan =>
  totalPlan(made, row, labels, { records: series.records, values: series.totals }, (m) =>
    series.restsOfTotal(m),
  );

/** The number of a period in a column. */
export function periodNumber(
  { firstFigure, extras }: PeriodRows,
  level: Level,
  k: number,
  column: number,
): number {
  const at = column - firstFigure - 1;
  if (at < 0) return at === -1 ? level.records[k] : NaN;
  const width = 1 + extras.length;
  const m = Math.floor(at / width);
  const e = (at % width) - 1;
  return e < 0 ? level.values[m][k] : level.followed[m][e][k];
}

/** A total: the whole, a group, or the records without a date. @param labels its cells before the figures */
const totalPlan = (
  made: PeriodRows,
  row: Omit<FigureRow, 'cells' | 'marks'>,
  labels: readonly Figure[],
  of: { readonly records: number; readonly values: readonly number[] },
  rests: (measure: number) => Influence | null = () => null,
): RowPlan => ({
  partOf: row.partOf ?? -1,
  make: () => ({
    ...row,
    cells: [...labels, ...totalCells(made, of.records, of.values)],
    ...marked(totalMarks(made, rests)),
    ...deviationsOfMeasures(made, rests),
  }),
  number: (column) => totalNumber(made, column, of.records, of.values),
});

type RestsOfMeasure = (measure: number) => Influence | null;

/** The marks of a total. */
const totalMarks = (made: PeriodRows, rests: RestsOfMeasure): Mark[] =>
  made.spec.measures.flatMap((_, m) => {
    const at = measureAt(made, m);
    return influenceMarks(made.input.table, made.columns[at], at, rests(m));
  });

const deviationsOfMeasures = (
  made: PeriodRows,
  rests: RestsOfMeasure,
): Pick<FigureRow, 'deviations'> =>
  deviationsOf(
    made.columns,
    made.spec.measures.map((_, m) => [measureAt(made, m), rests(m)]),
  );

/** The count and the measures of a period with what follows from them. */
const periodFigures = ({ spec, shown, extras }: PeriodRows, level: Level, k: number): Figure[] => [
  level.records[k],
  ...spec.measures.flatMap((measure, m): Figure[] => [
    figureFrom(measure, shown[m], level.values[m][k]),
    ...level.followed[m].map((values, e) =>
      extras[e].figure ? figureFrom(measure, shown[m], values[k]) : figureOf(values[k]),
    ),
  ]),
];

/** A period of a series: its figures, its marks, and the records of what it is set against. */
export function periodRow(
  made: PeriodRows,
  level: Level,
  k: number,
): Pick<FigureRow, 'cells' | 'marks' | 'deviations' | 'where' | 'instead' | 'run' | 'keys'> {
  const { spec, computed } = made;
  const { calendar } = computed;
  const index = level.first + k;
  const instead = insteadOf(made, level, k);
  return {
    keys: periodKeys(index, level.period, calendar),
    cells: [...periodCells(index, level.period, calendar), ...periodFigures(made, level, k)],
    where: periodCondition(spec.column, index, level.period, calendar),
    ...(instead.length && { instead }),
    ...marked(periodMarks(made, level, k)),
    ...deviationsOfMeasures(made, (m) => level.rests(m, k)),
    run: yearOf(index, level.period, calendar),
  };
}

/** Marks of a period: covered in part, set against a part, resting on one record. */
function periodMarks(made: PeriodRows, level: Level, k: number): Mark[] {
  const { spec, computed, extras, columns, input } = made;
  const facts = computed.levels.find(({ period }) => period === level.period);
  const marks: Mark[] = [];
  if (k === 0 && facts?.partialFirst)
    marks.push({ kind: 'partial', words: 'The data begin inside this period.' });
  if (k === level.length - 1 && facts?.partialLast)
    marks.push({ kind: 'partial', words: 'The data end inside this period.' });
  spec.measures.forEach((_, m) => {
    const at = measureAt(made, m);
    marks.push(...influenceMarks(input.table, columns[at], at, level.rests(m, k)));
    extras.forEach(({ against, figure }, e) => {
      if (!against) return;
      const column = at + 1 + e;
      const like = level.likes.find((part) => part.k === k && part.against === against);
      if (like && figure) marks.push({ column, kind: 'partial', words: likeWords(like) });
      if (figure) return;
      const before = placeBefore(k, against, level, computed.calendar);
      if (!(before >= 0)) return;
      const { own, other } = level.compared[m][spec.against.indexOf(against)];
      marks.push(
        ...changeMark(input.table, columns[at], columns[column], column, {
          before: other[k],
          after: own[k],
          ofBefore: like ? level.restsOfLike(m, like, 'other') : level.rests(m, before),
          ofAfter: like ? level.restsOfLike(m, like, 'own') : level.rests(m, k),
        }),
      );
    });
  });
  return marks;
}

/** The records of figures that are set against other periods, where they are not those of rows around. */
function insteadOf(made: PeriodRows, level: Level, k: number): NonNullable<FigureRow['instead']> {
  const { spec, computed, extras } = made;
  const { calendar } = computed;
  return spec.against.flatMap((against) => {
    const before = placeBefore(k, against, level, calendar);
    const like = level.likes.find((part) => part.k === k && part.against === against);
    if (!(before >= 0) || (against === 'previous' && !like)) return [];
    const whole = (n: number): Days => daysOfPeriod(n, level.period, calendar);
    const own = daysCondition(spec.column, like?.own ?? whole(level.first + k));
    const other = daysCondition(spec.column, like?.other ?? whole(level.first + before));
    const places = (figure: boolean): number[] =>
      spec.measures.flatMap((_, m) =>
        extras.flatMap((extra, e) =>
          extra.against === against && Boolean(extra.figure) === figure
            ? [measureAt(made, m) + 1 + e]
            : [],
        ),
      );
    return [
      { columns: places(true), where: other },
      { columns: places(false), where: anyOf([own, other]) },
    ];
  });
}

/** Visits the periods of a series depth first: each before the shorter ones inside it. */
export function walkPeriods(
  { levels }: ComputedSeries,
  { calendar }: ComputedPeriods,
  visit: (level: Level, depth: number, k: number, parent: number) => number,
  root: number,
): void {
  const walk = (depth: number, from: number, to: number, parent: number): void => {
    const level = levels[depth];
    if (!level) return;
    for (let k = from; k < to; k++) {
      const place = visit(level, depth, k, parent);
      const below = levels[depth + 1];
      if (!below) continue;
      const index = level.first + k;
      const at = (day: number): number => periodOf(day, below.period, calendar) - below.first;
      walk(
        depth + 1,
        Math.max(0, at(periodStart(index, level.period, calendar))),
        Math.min(below.length, at(periodEnd(index, level.period, calendar)) + 1),
        place,
      );
    }
  };
  walk(0, 0, levels[0].length, root);
}

/** What a record without a date meets. */
const undatedWhere = (column: string): Condition => ({
  kind: 'any',
  not: false,
  parts: [
    { kind: 'leaf', column, not: false, test: { test: 'blank' } },
    { kind: 'leaf', column, not: false, test: { test: 'unread' } },
  ],
});

/**
 * The records of a series without a date, where it has any.
 * @param labels its cells before the figures
 * @param of the row it is part of, its level, and the group: its keys and what its records meet
 */
export const undatedPlans = (
  made: PeriodRows,
  { undated }: ComputedSeries,
  labels: readonly Figure[],
  of: {
    readonly partOf: number;
    readonly level: number;
    readonly keys?: readonly Figure[];
    readonly group?: Condition | null;
  } = { partOf: 0, level: 1 },
): RowPlan[] =>
  undated.records === 0
    ? []
    : [
        totalPlan(
          made,
          {
            kind: 'outside',
            level: of.level,
            keys: [...(of.keys ?? []), null, null, null],
            where: joined([...(of.group ? [of.group] : []), undatedWhere(made.spec.column)]),
            partOf: of.partOf,
          },
          labels,
          undated,
        ),
      ];

import { columnFor } from '../../expression/columnFor';
import { fromSlice } from '../../measure/fromSlices';
import { MEASURES, needsOther, type Measure } from '../../measure/measure';
import { momentsOf } from '../../measure/moments';
import { gather } from '../../measure/slices';
import { valuesOf } from '../../measure/valuesOf';
import type { Task } from '../../task/task';
import { showScalar } from '../../table/cell';
import { isNumeric, isText, type Column, type ScalarColumn } from '../../table/column';
import { selectedInSteps } from '../../table/recordOrder';
import { counted } from '../../table/format';
import type { Answer } from '../answer/answer';
import { arithmeticWords, skipped } from './arithmetic';
import { recordsOf, selectionOf, type TallyInput } from '../input/input';
import { totalOf } from '../answer/figure';
import { figureText, formatOf } from '../answer/figureText';
import type { Formats } from '../spec/formats';
import { findFigure } from '../answer/findFigure';
import type { Condition } from '../../selection/condition';
import { recordPlace } from '../../table/recordNumber';
import { hasInfluence, influenceOf, influentialRecord, influenceWords } from '../trust/influence';
import { standsOn } from './recordsBehind';
import {
  figureOf,
  type Figure,
  type FigureColumn,
  type FigurePlace,
  type FigureRow,
} from '../answer/result';

/** What stands behind one figure of an answer. */
export interface FigureBehind {
  readonly figure: Figure;
  /** Of a mean, the deviation that may be shown with it; null: there is none. Left out for other figures. */
  readonly deviation?: number | null;
  /** The column it stands in. */
  readonly column: FigureColumn;
  /** Its row in words. */
  readonly where: string;
  /** What limits its records: those of its row and of its column. */
  readonly wheres: readonly Condition[];
  /** Places of the records, rising. */
  readonly records: Int32Array;
  /** The list's column that it is a measure of; null where it is none. */
  readonly of: Column | null;
  /** Of the records, how many have a value, and how many were skipped. */
  readonly values: number;
  readonly blanks: number;
  readonly unread: number;
  /** How the figure follows from them, in words. */
  readonly arithmetic: string;
  /** Empty unless few records carry it. */
  readonly warning: string;
  /** The record that carries most of it, and what it would be without; null where none does. */
  readonly rests: {
    readonly record: number;
    readonly words: string;
    readonly much: boolean;
  } | null;
  /** Whether it is a sum of its records, which a known total can be compared with. */
  readonly isSum: boolean;
}

/** A mean or a share on fewer values than this is warned about. */
const FEW = 10;

/**
 * The records, the skipped ones and the arithmetic behind a figure of any answer.
 * @param input what the answer was computed from
 * @throws NoSuchFigure
 * @example finish(behind(base, answer, { table: 'main', row: ['Skerry Bank'], column: 'm1' }))
 */
export function* behind(
  input: TallyInput,
  answer: Answer,
  place: FigurePlace,
  formats: Formats = {},
): Task<FigureBehind> {
  const found = yield* findFigure(answer, place);
  const { table, row, column, at } = found;
  const selection = selectionOf(input, answer.scope);
  const stands = yield* standsOn(input, selection, found);
  const records = yield* selectedInSteps(stands.records);
  const deviation = row.deviations?.find((d) => d.column === at);
  const about = {
    figure: row.cells[at],
    ...(deviation && { deviation: deviation.value }),
    column,
    where: row.cells
      .slice(0, table.labels)
      .filter((label) => label !== null)
      .join(' › '),
    wheres: [stands.where, column.where].flatMap((where) => where ?? []),
    records,
  };
  const { measure } = column;
  if (!measure || stands.rows > 1)
    return {
      ...about,
      of: null,
      values: records.length,
      blanks: 0,
      unread: 0,
      arithmetic: column.words ?? 'A label of the row.',
      warning: '',
      rests: markedRest(row, at),
      isSum: false,
    };
  const of = measure.column === undefined ? null : columnFor(input.table, measure.column);
  const { blanks, unread } = of ? yield* skipped(of, records) : { blanks: 0, unread: 0 };
  const values = records.length - blanks - unread;
  const arithmetic = yield* arithmeticWords({
    measure,
    column: of,
    other: measure.other === undefined ? null : columnFor(input.table, measure.other),
    records,
    values,
    show: (v) => (of && !isText(of) ? showScalar(of, v, formatOf(of, formats)) : String(v)),
    *whole() {
      return of ? (yield* totalOf((yield* valuesOf(of)).values, recordsOf(selection))).total : NaN;
    },
  });
  yield undefined;
  return {
    ...about,
    of,
    values,
    blanks,
    unread,
    arithmetic,
    warning: yield* fewWarning(measure, column, of, records, values, formats),
    rests: yield* restOf(input, column, row.cells[at], records, formats),
    isSum: measure.kind === 'sum' && of !== null && isNumeric(of),
  };
}

type Rests = FigureBehind['rests'];

/** What a figure that follows from others rests on, as its row says. */
function markedRest({ marks = [] }: FigureRow, at: number): Rests {
  const mark = marks.find(({ kind, column }) => kind === 'rests' && column === at);
  return mark?.record === undefined
    ? null
    : { record: recordPlace(mark.record), words: mark.words, much: true };
}

/** What a sum or a mean rests on, whether it is much or not. */
function* restOf(
  { table }: TallyInput,
  column: FigureColumn,
  figure: Figure,
  records: Int32Array,
  formats: Formats,
): Task<Rests> {
  const { measure } = column;
  if (!measure || typeof figure !== 'number' || !hasInfluence(measure, table)) return null;
  const { values } = yield* valuesOf(columnFor(table, measure.column ?? ''));
  const moments = yield* momentsOf(values, records, true);
  const kind = measure.kind === 'sum' ? 'sum' : 'mean';
  const rests = influenceOf(kind, figure, values, moments, 0, records.length);
  if (!rests || rests.values < 2) return null;
  const { record, much } = rests;
  return {
    record,
    much,
    words: much
      ? influenceWords(table, column, rests, formats)
      : `Of all its records ${influentialRecord(table, column, rests, formats)} moves it most: ${figureText(column, figureOf(rests.without), formats)} without it.`,
  };
}

/** Where few records carry a figure: the one that moves it most, and the median beside a mean. */
function* fewWarning(
  measure: Measure,
  column: FigureColumn,
  of: Column | null,
  records: Int32Array,
  values: number,
  formats: Formats,
): Task<string> {
  const { figure, adds } = MEASURES[measure.kind];
  if (adds || figure === 'count' || values === 0 || values >= FEW) return '';
  const only = counted(values, 'value');
  if (needsOther(measure.kind) === 'shown') return `This stands on only ${only}.`;
  if (measure.kind !== 'mean' || values < 2 || !of || !isNumeric(of))
    return `Only ${only}: this figure rests on very little.`;
  return `Only ${only}: ${yield* farthest(of, column, records, values, formats)}`;
}

/** `one of 61 moves this mean by 6.6. The median is 14.0.` */
function* farthest(
  of: ScalarColumn,
  column: FigureColumn,
  records: Int32Array,
  values: number,
  formats: Formats,
): Task<string> {
  const there = records.filter((i) => of.values[i] === of.values[i]);
  const sum = there.reduce((s, i) => s + of.values[i], 0);
  const mean = sum / values;
  let far = there[0];
  for (const i of there)
    if (Math.abs(of.values[i] - mean) > Math.abs(of.values[far] - mean)) far = i;
  const move = mean - (sum - of.values[far]) / (values - 1);
  const slice = yield* gather(of.values, new Int32Array(of.values.length), 1, there);
  const median = fromSlice({ kind: 'median' }, slice.values, 0, slice.values.length);
  const show = (v: number): string => figureText(column, v, formats);
  return `one of ${showScalar(of, of.values[far], formatOf(of, formats))} moves this mean by ${show(move)}. The median is ${show(median)}.`;
}

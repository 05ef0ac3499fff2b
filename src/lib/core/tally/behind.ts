import { NoSuchFigure } from '../errors';
import { columnFor } from '../expression/columnFor';
import { fromSlice } from '../measure/fromSlices';
import { MEASURES, needsOther, type Measure } from '../measure/measure';
import { momentsOf } from '../measure/moments';
import { gather } from '../measure/slices';
import { valuesOf } from '../measure/valuesOf';
import type { Steps } from '../steps/steps';
import { showScalar } from '../table/cell';
import { isNumeric, isText, type Column, type ScalarColumn } from '../table/column';
import { emptyBitset, or, type Bitset } from '../table/bitset';
import { selectedInSteps } from '../table/recordOrder';
import { counted } from '../table/format';
import { keysOfRow, type Answer, type AnswerTable } from './answer';
import { arithmeticWords, skipped } from './arithmetic';
import { recordsOf, selectionOf, type Base } from './base';
import { totalOf } from './figure';
import { figureText, formatOf, type Formats } from './figureText';
import { recordsWithin } from './recordsWithin';
import type { Condition } from '../scope/condition';
import { recordPlace } from '../table/recordNumber';
import { canRest, restsOn, restsRecord, restsWords } from './resting';
import { anyOf } from './whereCondition';
import {
  figureOf,
  type Figure,
  type FigureColumn,
  type FigurePlace,
  type FigureRow,
} from './result';

/** What stands behind one figure of an answer. */
export interface FigureBehind {
  readonly figure: Figure;
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
 * @param base what the answer was computed from
 * @throws NoSuchFigure
 * @example finish(behind(base, answer, { table: 'main', row: ['Skerry Bank'], column: 'm1' }))
 */
export function* behind(
  base: Base,
  answer: Answer,
  place: FigurePlace,
  formats: Formats = {},
): Steps<FigureBehind> {
  const { table, n, row, column, at } = findFigure(answer, place);
  const selection = selectionOf(base, answer.scope);
  const own = row.instead?.find(({ columns }) => columns.includes(at));
  const reached = own ? [{ ...row, where: own.where }] : rowsReached(table, n, row, column);
  const records = yield* selectedInSteps(yield* union(base, selection, reached, column));
  const about = {
    figure: row.cells[at],
    column,
    where: row.cells
      .slice(0, table.labels)
      .filter((label) => label !== null)
      .join(' › '),
    wheres: [whereOfAny(reached), column.where].flatMap((where) => where ?? []),
    records,
  };
  const { measure } = column;
  if (!measure || reached.length > 1)
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
  const of = measure.column === undefined ? null : columnFor(base.table, measure.column);
  const { blanks, unread } = of ? yield* skipped(of, records) : { blanks: 0, unread: 0 };
  const values = records.length - blanks - unread;
  const arithmetic = yield* arithmeticWords({
    measure,
    column: of,
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
    rests: yield* restOf(base, column, row.cells[at], records, formats),
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
  { table }: Base,
  column: FigureColumn,
  figure: Figure,
  records: Int32Array,
  formats: Formats,
): Steps<Rests> {
  const { measure } = column;
  if (!measure || typeof figure !== 'number' || !canRest(measure, table)) return null;
  const { values } = yield* valuesOf(columnFor(table, measure.column ?? ''));
  const moments = yield* momentsOf(values, records, true);
  const rests = restsOn(measure.kind === 'sum' ? 'sum' : 'mean', figure, values, moments, 0);
  if (!rests || rests.values < 2) return null;
  const { record, much } = rests;
  return {
    record,
    much,
    words: much
      ? restsWords(table, column, rests, formats)
      : `Of all its records ${restsRecord(table, column, rests, formats)} moves it most: ${figureText(column, figureOf(rests.without), formats)} without it.`,
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
): Steps<string> {
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
): Steps<string> {
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

interface Found {
  readonly table: AnswerTable;
  readonly n: number;
  readonly row: FigureRow;
  readonly column: FigureColumn;
  readonly at: number;
}

/** Where a figure stands. @throws NoSuchFigure */
export function findFigure(answer: Answer, place: FigurePlace): Found {
  const table =
    typeof place.table === 'number'
      ? answer.tables[place.table]
      : answer.tables.find((t) => t.name === place.table);
  if (!table) throw new NoSuchFigure(`The result has no table ${place.table}.`);
  const n = typeof place.row === 'number' ? place.row : rowWith(table, place.row);
  if (n < 0) throw new NoSuchFigure('No counted record is in this row any more.');
  if (n >= table.length)
    throw new NoSuchFigure(`The table has ${counted(table.length, 'row')}, counted from 0.`);
  const at =
    typeof place.column === 'number'
      ? place.column
      : table.columns.findIndex((c) => c.key === place.column || c.title === place.column);
  const column = table.columns[at];
  if (!column) throw new NoSuchFigure(`The table has no column ${place.column}.`);
  return { table, n, row: table.row(n), column, at };
}

/**
 * The row with these keys; where the rows stand in places, the one row with these keys whatever its place
 * is now, so that a group is found again once others have passed it. -1 where there is none.
 */
function rowWith(table: AnswerTable, keys: readonly Figure[]): number {
  const exact = table.find(keys);
  const named = table.columns.slice(0, table.labels).map(({ type }) => type !== 'rank');
  // Ranked records are made one by one: there may be a million.
  if (exact >= 0 || table.flat || keys.length !== table.labels) return exact;
  if (named.every(Boolean)) return keys.every((key) => key === null) ? allOthers(table) : exact;
  const found: number[] = [];
  for (let n = 0; n < table.length; n++) {
    const row = table.row(n);
    const own = keysOfRow(row, table.labels);
    if (row.kind === 'group' && own.every((key, k) => !named[k] || key === keys[k])) found.push(n);
  }
  return found.length === 1 ? found[0] : -1;
}

/** The one row of all others, which earlier versions named by blank labels; -1 where there is none. */
function allOthers(table: AnswerTable): number {
  for (let n = table.length - 1; n >= 0; n--) if (table.row(n).kind === 'others') return n;
  return -1;
}

/** The rows a figure stands on: its own, and those its column reaches. */
function rowsReached(
  table: AnswerTable,
  n: number,
  row: FigureRow,
  { reach }: FigureColumn,
): FigureRow[] {
  if (!reach) return [row];
  const level: FigureRow[] = [];
  let at = -1;
  for (let k = 0; k < table.length; k++) {
    const other = table.row(k);
    if (other.level !== row.level || other.kind !== row.kind) continue;
    level.push(other);
    if (k === n) at = level.length - 1;
    // Nothing behind the row is reached by sums down to it.
    if (at >= 0 && !Array.isArray(reach)) break;
  }
  if (reach === 'above') return level;
  if (reach === 'run') return level.filter((r) => r.run === row.run);
  return reach.flatMap((distance) => level[at + distance] ?? []);
}

/** What the records of several rows meet; none where one of the rows is the whole. */
function whereOfAny(rows: readonly FigureRow[]): Condition | undefined {
  const wheres = rows.flatMap(({ where }) => where ?? []);
  return wheres.length && wheres.length === rows.length ? anyOf(wheres) : undefined;
}

/** The records of several rows under one column. Rows of single records are taken together. */
function* union(
  base: Base,
  selection: Bitset,
  rows: readonly FigureRow[],
  column: FigureColumn,
): Steps<Bitset> {
  const numbers = rows.flatMap(({ where }) => (where?.kind === 'records' ? where.records : []));
  let out = numbers.length
    ? yield* recordsWithin(base, selection, [
        { kind: 'records', not: false, records: numbers },
        column.where,
      ])
    : emptyBitset(base.table.length);
  for (const { where } of rows)
    if (where?.kind !== 'records')
      out = or(out, yield* recordsWithin(base, selection, [where, column.where]));
  return out;
}

import { checkComputed } from '../../core/ask/prepare';
import { columnUses } from '../../core/bench/columnUse';
import { Circle, ExpressionError } from '../../core/errors';
import { checkExpression } from '../../core/expression/check';
import { columnsRead } from '../../core/expression/types';
import { computedColumn, columnsNamed } from '../../core/prepare/computedColumn';
import { inOrder, preparations } from '../../core/prepare/order';
import { taking } from '../../core/prepare/reshape';
import { idOfComputed, type ComputedSpec } from '../../core/prepare/specs';
import { finish, inStretches, type Task } from '../../core/task/task';
import { showCell, showScalar } from '../../core/table/cell';
import { isMissing, isText, isUnread, typeName, type Column } from '../../core/table/column';
import { recordNumber } from '../../core/table/recordNumber';
import { findColumn, namesOf, type Table } from '../../core/table/table';
import { Faults } from '../../core/tally/spec/fault';
import { plainSentence } from '../../core/tally/sentence/sentence';
import { sentenceOf } from '../../core/tally/sentence/sentences';
import type { Session } from '../session';
import type { ArgsOf, ReplyOf } from '../protocol';

type Draft = ReplyOf<'draft'>;
type DraftFault = NonNullable<Draft['fault']>;

/** Records shown of a column in the making; the first without a result is one more. */
const SHOWN = 5;
/** Columns that stand beside it. */
const MOST_HEADS = 3;

/** What a column in the making comes to: its fault, or its first records and what came out of all. */
export function* answerDraft(session: Session, { spec, at, whole }: ArgsOf<'draft'>): Task<Draft> {
  const changed = at === null ? undefined : session.doc.computed[at];
  const own = changed && idOfComputed(changed);
  const columns = session.table.columns.filter((c) => c.id !== own);
  const table: Table = { ...session.table, columns };
  const fault = faultOf(session, spec, at, columns);
  if (fault) return { fault, column: null };
  yield undefined;
  const beside = besides(spec, columns);
  const first = [...session.counted.subarray(0, SHOWN)];
  // A figure within groups needs all records of them.
  if (!whole && !spec.window) {
    // The first records are there before the whole list is gone through.
    const few: Table = {
      length: first.length,
      columns: beside.map((c) => finish(taking(c, first))),
    };
    const column = yield* made(few, spec);
    const rows = first.map((record, k) => rowOf(column, few.columns, k, record));
    return { fault: null, column: { ...about(column, beside), rows, all: null } };
  }
  const column = yield* made(table, spec);
  yield undefined;
  const none = session.counted.find((i, k) => k >= SHOWN && isMissing(column, i));
  const rows = [...first, ...(none === undefined ? [] : [none])].map((i) =>
    rowOf(column, beside, i, i),
  );
  const all = yield* cameOut(column, beside, table.length);
  return { fault: null, column: { ...about(column, beside), rows, all } };
}

function* made(table: Table, spec: ComputedSpec): Task<Column> {
  const facts = { id: '\u0000draft', name: spec.name || 'New column', unit: spec.unit };
  return yield* computedColumn(table, spec, facts);
}

type Made = NonNullable<Draft['column']>;

const about = (column: Column, beside: readonly Column[]): Pick<Made, 'type' | 'heads' | 'of'> => ({
  type: typeName[column.type],
  heads: [...beside.slice(0, MOST_HEADS), column].map(({ name, unit, type }) => ({
    name,
    unit,
    right: type === 'number',
  })),
  of: beside.length,
});

/** Where the bench uses a column, in words. */
export function* answerUses(
  { doc, table, listName }: Session,
  { column: ref }: ArgsOf<'uses'>,
): Task<string[]> {
  yield undefined;
  const names = namesOf(table);
  const calls = [ref, names.get(ref) ?? ref];
  return columnUses(
    doc,
    calls,
    names,
    ({ name, tally }) => name ?? plainSentence(sentenceOf(tally, names, listName)),
  );
}

function faultOf(
  { doc }: Session,
  spec: ComputedSpec,
  at: number | null,
  columns: readonly Column[],
): DraftFault | null {
  const at0 = { start: 0, end: spec.expression?.length ?? 0, fix: null };
  if (spec.expression?.trim() === '')
    return { ...at0, message: 'Nothing is written yet.', remedy: '' };
  if (spec.expression !== undefined)
    try {
      checkExpression(spec.expression, columns);
    } catch (error) {
      if (!(error instanceof ExpressionError)) throw error;
      return { ...error.span, message: error.fault, remedy: error.remedy, fix: error.fix };
    }
  const faults = new Faults(columns);
  checkComputed(spec, faults, 'column');
  if (findColumn(columns, spec.name))
    faults.add('column', `There is a column “${spec.name}” already.`, 'Give it another name.');
  if (faults.found.length) return { ...at0, ...pick(faults.found[0]) };
  const others = doc.computed.filter((_, k) => k !== at);
  const names = columns.flatMap((c) => [c.id, c.name]);
  const made = new Set(others.flatMap((c) => [idOfComputed(c), c.name]));
  try {
    inOrder(
      preparations([...others, spec], doc.joins),
      names.filter((name) => !made.has(name)),
    );
  } catch (error) {
    if (!(error instanceof Circle)) throw error;
    return { ...at0, message: error.message, remedy: 'Take one of them out of its own making.' };
  }
  return null;
}

const pick = ({ message, remedy }: { message: string; remedy: string }) => ({ message, remedy });

/** The columns that it is made of, in the order it names them. */
function besides(spec: ComputedSpec, columns: readonly Column[]): Column[] {
  if (spec.expression === undefined)
    return [...new Set(columnsNamed(spec).flatMap((ref) => findColumn(columns, ref) ?? []))];
  return [...columnsRead(checkExpression(spec.expression ?? '', columns))];
}

/** A row of what is shown. @param at the record's place in these columns */
const rowOf = (
  column: Column,
  beside: readonly Column[],
  at: number,
  record: number,
): Made['rows'][number] => ({
  record,
  cells: [...beside.slice(0, MOST_HEADS).map((c) => showCell(c, at)), showCell(column, at)],
  none: isMissing(column, at) ? whyNone(column, beside, at) : '',
});

function whyNone(column: Column, beside: readonly Column[], i: number): string {
  const unread = beside.find((c) => isUnread(c, i));
  if (unread) return `none: ${unread.name} is unread`;
  const blank = beside.find((c) => isMissing(c, i));
  return blank ? `none: ${blank.name} is blank` : 'none: no value there';
}

type CameOut = NonNullable<Made['all']>;

/** How many records got a value, why the others have none, and the ends of what came out. */
function* cameOut(column: Column, beside: readonly Column[], length: number): Task<CameOut> {
  let values = 0;
  let blank = 0;
  let unread = 0;
  let none = 0;
  let lowest = -1;
  let highest = -1;
  const numbers = isText(column) ? null : column.values;
  const look = (i: number): void => {
    if (isMissing(column, i)) {
      if (beside.some((c) => isUnread(c, i))) unread++;
      else if (beside.some((c) => isMissing(c, i))) blank++;
      else none++;
      return;
    }
    values++;
    if (!numbers) return;
    if (lowest < 0 || numbers[i] < numbers[lowest]) lowest = i;
    if (highest < 0 || numbers[i] > numbers[highest]) highest = i;
  };
  yield* inStretches(length, (from, to) => {
    for (let i = from; i < to; i++) look(i);
  });
  const show = (i: number): string =>
    i < 0 || isText(column) ? '' : showScalar(column, column.values[i]);
  return {
    values,
    blank,
    unread,
    none,
    lowest: show(lowest),
    highest: show(highest),
    far: farthest(column, lowest, highest),
    distinct: isText(column) ? column.dictionary.length : null,
  };
}

/** Values looked at for where the middle half of them lies. */
const SAMPLE = 20_000;
/** So many times the middle half's width beyond it is far off (Tukey 1977, "far out"). */
const FAR = 3;

/** The one of the two ends that lies far outside the middle half, by its record's number. */
function farthest(
  column: Column,
  lowest: number,
  highest: number,
): { record: number; text: string } | null {
  if (isText(column) || column.type !== 'number' || lowest < 0) return null;
  const { values } = column;
  const step = Math.max(1, Math.floor(values.length / SAMPLE));
  const sample: number[] = [];
  for (let i = 0; i < values.length; i += step) if (values[i] === values[i]) sample.push(values[i]);
  const sorted = Float64Array.from(sample).sort();
  const [q1, q3] = [sorted[sorted.length >> 2], sorted[(3 * sorted.length) >> 2]];
  const width = q3 - q1;
  if (!(width > 0)) return null;
  const beyond = (i: number): number => Math.max(q1 - values[i], values[i] - q3) / width;
  const end = beyond(highest) >= beyond(lowest) ? highest : lowest;
  return beyond(end) > FAR
    ? { record: recordNumber(end), text: showScalar(column, values[end]) }
    : null;
}

import { groupCodes } from '../arrange/groupCodes';
import { sortByColumn, sortRecords } from '../arrange/sort';
import { buildTree } from '../arrange/tree';
import { CompensatedSum } from '../measure/compensated';
import { sumsOfGroups } from '../measure/moments';
import { columnInSteps, columnsInSteps } from '../expression/columnFor';
import { inStretches, type Task } from '../task/task';
import { isMissing, isText, type Column, type ScalarColumn } from '../table/column';
import { orderReadInSteps } from '../table/recordOrder';
import type { Table } from '../table/table';
import type { WindowSpec } from './specs';

/** What a new column is called. */
interface Facts {
  readonly id: string;
  readonly name: string;
  readonly unit: string;
}

/**
 * A figure of each record among those of its group: its place, its share, what was added up to it,
 * the value of the record before it. Groups are of equal values; texts that differ only in case or
 * outer spaces are one, and records without a value are a group. All records of the list take part,
 * whatever counts later. Records are followed in the order given, equal ones in the order read.
 *
 * - `rank`: 1 is the highest (with `descending`), equal values share the place of the first of them
 *   (1 2 2 4); none without a value.
 * - `percentileRank`: (records below ÷ (n − 1)), as PERCENT_RANK of ISO/IEC 9075-2; 0 for one record alone.
 * - `number`: 1, 2, 3 … in the order.
 * - `running`: the sum up to and with the record; one without a value adds nothing.
 * - `share`: the value ÷ the sum of its group; none where that is 0.
 * - `previous`: the value of the record before, none for the first; `change`: the value less that,
 *   of dates in days.
 * @throws UnknownColumn, ExpressionError
 */
export function* windowColumn(table: Table, spec: WindowSpec, facts: Facts): Task<Column> {
  const leaves = yield* leavesOf(table, spec.by);
  if (spec.figure === 'number' || spec.of === undefined)
    return numbers(yield* numbered(yield* sortRecords(table, spec.order), leaves), facts);
  const of = yield* columnInSteps(table, spec.of);
  switch (spec.figure) {
    case 'rank':
    case 'percentileRank':
      return yield* ranked(of, leaves, spec, facts);
    case 'share':
      return yield* shares(of, leaves, facts);
    case 'previous': {
      const before = yield* recordsBefore(yield* sortRecords(table, spec.order), leaves);
      return yield* previous(of, before, facts);
    }
    case 'running':
      return yield* running(of, yield* sortRecords(table, spec.order), leaves, facts);
    case 'change':
      return yield* changes(of, yield* sortRecords(table, spec.order), leaves, facts);
  }
}

interface Leaves {
  readonly leafOf: Int32Array;
  readonly leaves: number;
}

function* leavesOf(table: Table, by: readonly string[]): Task<Leaves> {
  const codes = [];
  for (const column of yield* columnsInSteps(table, by))
    codes.push(
      yield* groupCodes(
        column,
        { column: column.id, loose: true, order: { by: 'label', descending: false } },
        null,
      ),
    );
  return yield* buildTree(table.length, codes);
}

const withUnit = (facts: Facts, { unit }: Column): Facts => ({
  ...facts,
  unit: facts.unit || unit,
});

const numbers = (
  values: Float64Array,
  facts: Facts,
  more: Partial<Pick<ScalarColumn, 'decimals' | 'percent'>> = {},
): ScalarColumn => ({
  ...facts,
  type: 'number',
  values,
  unread: new Map(),
  decimals: 0,
  percent: false,
  grain: 'day',
  ...more,
});

/** Places written with a tenth of a per cent. */
const SHARE = { decimals: 3, percent: true } as const;

function* ranked(
  of: Column,
  { leafOf, leaves }: Leaves,
  { figure, descending }: WindowSpec,
  facts: Facts,
): Task<Column> {
  const isShare = figure === 'percentileRank';
  const length = leafOf.length;
  const { order, tied } = yield* sortByColumn(
    of,
    { descending: isShare ? false : descending, blanks: 'last' },
    yield* orderReadInSteps(length),
  );
  const values = new Float64Array(length).fill(NaN);
  const seen = new Float64Array(leaves);
  const rank = new Float64Array(leaves);
  const lastRun = new Int32Array(leaves).fill(-1);
  let run = 0;
  yield* inStretches(length, (from, to) => {
    for (let k = from; k < to; k++) {
      if (k > 0 && tied[k] === 0) run++;
      const i = order[k];
      if (isMissing(of, i)) continue;
      const leaf = leafOf[i];
      seen[leaf]++;
      if (lastRun[leaf] !== run) {
        lastRun[leaf] = run;
        rank[leaf] = seen[leaf];
      }
      values[i] = rank[leaf];
    }
  });
  if (!isShare) return numbers(values, { ...facts });
  yield* inStretches(length, (from, to) => {
    for (let i = from; i < to; i++) {
      const n = seen[leafOf[i]];
      if (values[i] === values[i]) values[i] = n > 1 ? (values[i] - 1) / (n - 1) : 0;
    }
  });
  return numbers(values, { ...facts, unit: '' }, SHARE);
}

/** The values of a column that can be added; texts have none. */
const addable = (of: Column, length: number): Float64Array =>
  isText(of) ? new Float64Array(length).fill(NaN) : of.values;

function* shares(of: Column, { leafOf, leaves }: Leaves, facts: Facts): Task<Column> {
  const from = addable(of, leafOf.length);
  const all = yield* orderReadInSteps(from.length);
  const sums = yield* sumsOfGroups(from, leafOf, leaves, all);
  const values = new Float64Array(leafOf.length);
  yield* inStretches(values.length, (begin, end) => {
    for (let i = begin; i < end; i++) {
      const whole = sums.sum(leafOf[i]);
      values[i] = whole === 0 ? NaN : from[i] / whole;
    }
  });
  return numbers(values, { ...facts, unit: '' }, SHARE);
}

function* running(
  of: Column,
  order: Int32Array,
  { leafOf, leaves }: Leaves,
  facts: Facts,
): Task<Column> {
  const from = addable(of, leafOf.length);
  const sums: (CompensatedSum | undefined)[] = new Array(leaves);
  const values = new Float64Array(leafOf.length);
  yield* inStretches(order.length, (begin, end) => {
    for (let k = begin; k < end; k++) {
      const i = order[k];
      const sum = (sums[leafOf[i]] ??= new CompensatedSum());
      if (from[i] === from[i]) sum.add(from[i]);
      values[i] = sum.value;
    }
  });
  return numbers(values, withUnit(facts, of), { decimals: isText(of) ? 0 : of.decimals });
}

/** The record before each in its group; −1 for the first. */
function* recordsBefore(order: Int32Array, { leafOf, leaves }: Leaves): Task<Int32Array> {
  const last = new Int32Array(leaves).fill(-1);
  const before = new Int32Array(order.length);
  yield* inStretches(order.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const i = order[k];
      before[i] = last[leafOf[i]];
      last[leafOf[i]] = i;
    }
  });
  return before;
}

/** The values of the records before; blank for the first of each group. */
function* previous(of: Column, before: Int32Array, facts: Facts): Task<Column> {
  if (isText(of)) {
    const codes = new Int32Array(before.length);
    yield* inStretches(before.length, (from, to) => {
      for (let i = from; i < to; i++) codes[i] = before[i] < 0 ? -1 : of.codes[before[i]];
    });
    return { ...facts, unit: '', type: 'text', codes, dictionary: of.dictionary };
  }
  const values = new Float64Array(before.length);
  yield* inStretches(before.length, (from, to) => {
    for (let i = from; i < to; i++) values[i] = before[i] < 0 ? NaN : of.values[before[i]];
  });
  return { ...of, ...withUnit(facts, of), values, unread: new Map() };
}

function* numbered(order: Int32Array, { leafOf, leaves }: Leaves): Task<Float64Array> {
  const seen = new Float64Array(leaves);
  const values = new Float64Array(order.length);
  yield* inStretches(order.length, (from, to) => {
    for (let k = from; k < to; k++) values[order[k]] = ++seen[leafOf[order[k]]];
  });
  return values;
}

/** Milliseconds of a day, in which dates with a time are counted. */
const DAY = 86_400_000;

function* changes(of: Column, order: Int32Array, leaves: Leaves, facts: Facts): Task<Column> {
  const from = addable(of, order.length);
  const before = yield* recordsBefore(order, leaves);
  const per = of.type === 'datetime' ? DAY : 1;
  const values = new Float64Array(order.length);
  yield* inStretches(values.length, (begin, end) => {
    for (let i = begin; i < end; i++)
      values[i] = before[i] < 0 ? NaN : (from[i] - from[before[i]]) / per;
  });
  const isDay = of.type === 'date' || of.type === 'datetime';
  return numbers(values, isDay ? { ...facts, unit: facts.unit || 'days' } : withUnit(facts, of), {
    decimals: isText(of) ? 0 : of.type === 'datetime' ? 2 : of.decimals,
    percent: !isText(of) && of.percent,
  });
}

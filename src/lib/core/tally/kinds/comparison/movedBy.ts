import { columnFor } from '../../../expression/columnFor';
import type { Measure } from '../../../measure/measure';
import { mergedSort } from '../../../sorting/mergedSort';
import { inStretches, STRIDE, type Task } from '../../../task/task';
import { isNumeric, type ScalarColumn } from '../../../table/column';
import { findColumn, type Table } from '../../../table/table';
import type { Figure } from '../../answer/result';
import { addsIn } from './amounts';
import { howOf, type How, type Mover } from './movers';

/** A figure of two readings with the records that moved it: a rule, from which they are made when asked for. */
export interface MovedBy {
  readonly before: Figure;
  readonly after: Figure;
  readonly difference: number | null;
  readonly measure?: Measure | undefined;
  readonly newer: Table;
  /** Whether the newer reading is the list that was asked, so that its records can be opened. */
  readonly here: boolean;
  readonly older: Table;
  /** Columns that name a record in both. */
  readonly match: readonly string[];
  readonly movers: readonly Mover[];
}

/** One of those records: what it brought to the figure of each reading. */
export interface MovedRecord extends Mover {
  readonly how: How;
  /** Its value of the measured column; null where it is not in the figure or has none. */
  readonly before: number | null;
  readonly after: number | null;
  /** By how much it moved a figure that adds up; null for others. */
  readonly by: number | null;
}

/** The column that a measure takes its numbers from, in each reading; null for counts and texts. */
export function measuredIn(table: Table, measure: Measure | undefined): ScalarColumn | null {
  if (measure?.column === undefined || measure.kind === 'values') return null;
  if (!findColumn(table.columns, measure.column)) return null;
  const column = columnFor(table, measure.column);
  return isNumeric(column) ? column : null;
}

/**
 * The records that moved a figure, those that moved it most first: by what each adds, or for a figure that
 * does not add up (a mean, a median) by how far its value moved. Records of equal weight stay in their order.
 */
export function* recordsMoved({ measure, newer, older, movers }: MovedBy): Task<MovedRecord[]> {
  const [valueNow, valueThen] = [valueIn(newer, measure), valueIn(older, measure)];
  const [addsNow, addsThen] = measure
    ? [addsIn(measure, newer), addsIn(measure, older)]
    : [null, null];
  const weigh = (mover: Mover): { record: MovedRecord; weight: number } => {
    const { now, then, isIn, wasIn } = mover;
    const after = isIn ? valueNow(now) : null;
    const before = wasIn ? valueThen(then) : null;
    const by =
      addsNow && addsThen ? (isIn ? addsNow(now) : 0) - (wasIn ? addsThen(then) : 0) : null;
    const record: MovedRecord = { ...mover, how: howOf(mover), before, after, by };
    return { record, weight: Math.abs(by ?? (after ?? 0) - (before ?? 0)) };
  };
  const weighed: ReturnType<typeof weigh>[] = [];
  yield* inStretches(
    movers.length,
    (from, to) => {
      for (let k = from; k < to; k++) weighed.push(weigh(movers[k]));
    },
    STRIDE >> 5,
  );
  const heaviestFirst = yield* mergedSort(weighed, (a, b) => b.weight - a.weight);
  return heaviestFirst.map(({ record }) => record);
}

function valueIn(table: Table, measure: Measure | undefined): (record: number) => number | null {
  const column = measuredIn(table, measure);
  return column
    ? (i) => (column.values[i] === column.values[i] ? column.values[i] : null)
    : () => null;
}

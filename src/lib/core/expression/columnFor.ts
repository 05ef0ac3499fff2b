import { StepCache } from '../task/cache';
import { finish, type Task } from '../task/task';
import type { Column } from '../table/column';
import { columnOf, type Table } from '../table/table';
import { computeColumn } from './evaluate';
import { expressionIn } from './reference';

/** Columns of expressions that a table keeps at most, the longest unused dropped first. */
const MOST_KEPT = 8;

const computed = new WeakMap<Table, StepCache<Column>>();

function keptOf(table: Table): StepCache<Column> {
  let kept = computed.get(table);
  if (!kept) computed.set(table, (kept = new StepCache(MOST_KEPT)));
  return kept;
}

/**
 * The column a reference means: one of the list by id or name, or one computed on the spot from
 * `expression: …`. The last few computed ones are kept with the table, and go when it goes.
 * @throws UnknownColumn, ExpressionError
 * @example columnFor(table, 'expression: fares / NULLIF(boarded, 0)')
 */
export const columnFor = (table: Table, ref: string): Column => finish(columnInSteps(table, ref));

/**
 * The same with pauses while it is computed. Whoever does so before long work may ask `columnFor` in
 * the midst of it: what it means stands by then.
 * @throws UnknownColumn, ExpressionError
 * @example const column = yield* columnInSteps(table, 'expression: fares / NULLIF(boarded, 0)');
 */
export function* columnInSteps(table: Table, ref: string): Task<Column> {
  const source = expressionIn(ref);
  if (source === null) return columnOf(table, ref);
  return yield* keptOf(table).onceInSteps(ref, () =>
    computeColumn(table, source, { id: ref, name: source, unit: '' }),
  );
}

/** The columns of several references, in their order. @throws UnknownColumn, ExpressionError */
export function* columnsInSteps(table: Table, refs: readonly string[]): Task<Column[]> {
  const columns: Column[] = [];
  for (const ref of refs) columns.push(yield* columnInSteps(table, ref));
  return columns;
}

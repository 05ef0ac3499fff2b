import { StepCache } from '../steps/cache';
import { finish } from '../steps/steps';
import type { Column } from '../table/column';
import { columnOf, type Table } from '../table/table';
import { computeColumn } from './evaluate';
import { expressionIn } from './reference';

/** Columns of expressions that a table keeps at most, the longest unused dropped first. */
const MOST_KEPT = 8;

const computed = new WeakMap<Table, StepCache<Column>>();

/**
 * The column a reference means: one of the list by id or name, or one computed on the spot from
 * `expression: …`. The last few computed ones are kept with the table, and go when it goes.
 * @throws UnknownColumn, ExpressionError
 * @example columnFor(table, 'expression: fares / NULLIF(boarded, 0)')
 */
export function columnFor(table: Table, ref: string): Column {
  const source = expressionIn(ref);
  if (source === null) return columnOf(table, ref);
  let known = computed.get(table);
  if (!known) computed.set(table, (known = new StepCache(MOST_KEPT)));
  return known.once(ref, () =>
    finish(computeColumn(table, source, { id: ref, name: source, unit: '' })),
  );
}

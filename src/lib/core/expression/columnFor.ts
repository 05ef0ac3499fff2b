import { finish } from '../steps/steps';
import type { Column } from '../table/column';
import { columnOf, type Table } from '../table/table';
import { computeColumn } from './evaluate';

/** How a reference says that it is an expression and not the name of a column. */
const MARK = /^expression:\s*/;

/** The expression in a reference such as `expression: fares / boarded`; null for a plain one. */
export function expressionIn(ref: string): string | null {
  return MARK.test(ref) ? ref.replace(MARK, '') : null;
}

const reckoned = new WeakMap<Table, Map<string, Column>>();

/**
 * The column a reference means: one of the list by id or name, or one computed on the spot from
 * `expression: …`. Computed ones are kept as long as the list.
 * @throws UnknownColumn, ExpressionError
 */
export function columnFor(table: Table, ref: string): Column {
  const source = expressionIn(ref);
  if (source === null) return columnOf(table, ref);
  let known = reckoned.get(table);
  if (!known) reckoned.set(table, (known = new Map()));
  let column = known.get(ref);
  if (!column) {
    column = finish(computeColumn(table, source, { id: ref, name: source, unit: '' }));
    known.set(ref, column);
  }
  return column;
}

import { spokenOf } from '../expression/names';
import { columnsNamed } from '../prepare/computedColumn';
import { idOfComputed } from '../prepare/specs';
import { columnsAsked } from '../selection/condition';
import { describeCondition } from '../selection/describe';
import { refs } from '../tally/spec/refs';
import type { Bench } from './document';

/** A place of a bench that uses a column: `the step “Delay is at least 10”`. */
export type ColumnUse = string;

const same = (a: string, b: string): boolean => a.trim().toLowerCase() === b.trim().toLowerCase();

/**
 * Where a bench uses a column: its steps, orders, tallies and other made columns, each in words.
 * @param calls what the column is called by: its id, its name
 * @param nameOf what a tally of the tray goes by
 */
export function columnUses(
  doc: Bench,
  calls: readonly string[],
  names: ReadonlyMap<string, string>,
  nameOf: (item: Bench['tray'][number]) => string,
): ColumnUse[] {
  const uses = (found: readonly string[]): boolean =>
    found.flatMap(spokenOf).some((ref) => calls.some((call) => same(call, ref)));
  const out: ColumnUse[] = [];
  for (const { condition } of doc.ladder.rungs)
    if (uses(columnsAsked(condition)))
      out.push(`the step “${describeCondition(condition, names)}”`);
  if (uses(doc.ladder.setAside.values.map((v) => v.column))) out.push('what is set aside by value');
  if (uses(doc.sort.map((key) => key.column))) out.push('the order of the records');
  for (const item of doc.tray) {
    const { columns, conditions } = refs(item.tally);
    const asked = conditions.flatMap(({ to }) => columnsAsked(to));
    if (uses([...columns.map(({ to }) => to), ...asked])) out.push(`the tally “${nameOf(item)}”`);
  }
  for (const spec of doc.computed) {
    if (calls.some((call) => same(call, idOfComputed(spec)))) continue;
    if (uses(columnsNamed(spec))) out.push(`the made column “${spec.name}”`);
  }
  for (const join of doc.joins)
    if (uses(join.on.map((on) => on.column))) out.push(`the columns from “${join.list}”`);
  return out;
}

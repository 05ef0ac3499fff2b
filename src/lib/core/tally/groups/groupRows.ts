import type { AnswerTable } from '../answer/answer';

/** Rows of a table that are groups: without totals, others, and what is outside. */
export function groupRows(table: AnswerTable): number {
  if (table.groups !== undefined) return table.groups;
  let n = 0;
  for (let k = 0; k < table.length; k++) if (table.row(k).kind === 'group') n++;
  return n;
}

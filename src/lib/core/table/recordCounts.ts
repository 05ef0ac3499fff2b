import { count, has, type Bitset } from './bitset';
import type { Table } from './table';

/* Records are counted by the weights of the rows: each row of a condensed table stands for several. */

/** How many records some rows stand for: as many as there are, unless the table is condensed. */
export function recordCount({ weights }: Table, rows: Int32Array): number {
  if (!weights) return rows.length;
  let sum = 0;
  for (const row of rows) sum += weights[row];
  return sum;
}

/** How many records a selection of rows stands for. */
export function recordsSelected({ weights }: Table, rows: Bitset): number {
  if (!weights) return count(rows);
  let sum = 0;
  for (let row = 0; row < weights.length; row++) if (has(rows, row)) sum += weights[row];
  return sum;
}

/** How many records a table stands for. */
export const recordsOfTable = ({ length, weights }: Table): number =>
  weights ? weights.reduce((sum, weight) => sum + weight, 0) : length;

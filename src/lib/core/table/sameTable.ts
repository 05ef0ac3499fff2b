import { isText, type Column } from './column';
import type { Table } from './table';

/** Whether two tables hold the same columns with the same cells, however their texts are coded. */
export const sameTable = (a: Table, b: Table): boolean =>
  a.length === b.length &&
  a.columns.length === b.columns.length &&
  a.columns.every((column, c) => sameColumn(column, b.columns[c], a.length));

function sameColumn(a: Column, b: Column, length: number): boolean {
  if (a.id !== b.id || a.name !== b.name || a.unit !== b.unit) return false;
  if (isText(a) || isText(b)) {
    if (!isText(a) || !isText(b)) return false;
    for (let i = 0; i < length; i++)
      if (a.dictionary[a.codes[i]] !== b.dictionary[b.codes[i]]) return false;
    return true;
  }
  if (a.type !== b.type || a.grain !== b.grain || a.percent !== b.percent) return false;
  if (a.unread.size !== b.unread.size) return false;
  for (const [i, text] of a.unread) if (b.unread.get(i) !== text) return false;
  // Object.is takes what is missing in both (NaN) as the same.
  for (let i = 0; i < length; i++) if (!Object.is(a.values[i] + 0, b.values[i] + 0)) return false;
  return true;
}

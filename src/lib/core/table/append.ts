import { encodeChunk, chunkCount } from './arrowWrite';
import { tableOfChunks } from './arrowRead';
import { isText, type Column } from './column';
import type { Table } from './table';

const shapeOf = (column: Column): string =>
  JSON.stringify([
    column.id,
    column.name,
    column.type,
    column.unit,
    isText(column) ? '' : [column.percent, column.grain, column.calendar],
  ]);

/**
 * Why records of some columns cannot stand behind those of others; '' where they can. Columns are the same by
 * id, name, type, unit and how their values are written, in the same order.
 */
export function whyApart(before: readonly Column[], added: readonly Column[]): string {
  const other = added.find((column, k) => !before[k] || shapeOf(before[k]) !== shapeOf(column));
  if (other)
    return `${other.name} is not the same column as the list has: its type, its unit or how its values are written differs.`;
  return before.length === added.length ? '' : 'The columns are not those of the list.';
}

function* chunksOf(table: Table): Generator<Uint8Array> {
  for (let n = 0; n < chunkCount(table); n++) yield encodeChunk(table, n);
}

/**
 * One table behind another, put together as a stored list is.
 * @throws RangeError where the columns are not the same
 * @example appended(january, february).length // records of both
 */
export function appended(table: Table, added: Table): Table {
  const why = whyApart(table.columns, added.columns);
  if (why) throw new RangeError(why);
  function* all(): Generator<Uint8Array> {
    yield* chunksOf(table);
    yield* chunksOf(added);
  }
  return tableOfChunks(all(), table.length + added.length);
}

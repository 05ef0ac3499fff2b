import { strFromU8, strToU8 } from 'fflate';
import { joined } from '../read/decode/joined';

const TABLE = strToU8('<table:table ');
const ROW = strToU8('<table:table-row');
const ROW_END = strToU8('</table:table-row>');
const BEGIN = strToU8('<table:table-header-rows>');
const END = strToU8('</table:table-header-rows>');

/** Where a run of bytes stands from a place on; −1 for nowhere. */
function find(bytes: Uint8Array, wanted: Uint8Array, from: number): number {
  for (let at = bytes.indexOf(wanted[0], from); at >= 0; at = bytes.indexOf(wanted[0], at + 1))
    if (wanted.every((byte, k) => bytes[at + k] === byte)) return at;
  return -1;
}

/**
 * Marks the heads of sheets as header rows, which ISO/IEC 26300-1 (9.1.7) has stand again on each printed page;
 * for heads that stay in sight on a screen the standard has no word.
 * @param content the cells of a workbook as XML
 * @param heads the row of each sheet's heads, from 1, in their order; 0: none
 */
export function withHeaderRows(content: Uint8Array, heads: readonly number[]): Uint8Array {
  const parts: Uint8Array[] = [];
  let done = 0;
  let from = 0;
  for (const head of heads) {
    from = find(content, TABLE, from);
    if (from < 0) break;
    from += TABLE.length;
    if (head < 1) continue;
    const at = rowAt(content, from, head);
    const end = at < 0 ? -1 : find(content, ROW_END, at);
    if (end < 0) continue;
    parts.push(content.subarray(done, at), BEGIN);
    done = end + ROW_END.length;
    parts.push(content.subarray(at, done), END);
    from = done;
  }
  return joined([...parts, content.subarray(done)]);
}

/** Where the row with this number begins; −1 where it is one of several written as one. */
function rowAt(content: Uint8Array, from: number, wanted: number): number {
  let row = 0;
  for (let at = find(content, ROW, from); at >= 0; at = find(content, ROW, at + ROW.length)) {
    const tag = strFromU8(content.subarray(at, content.indexOf(0x3e, at)), true);
    const times = Number(/number-rows-repeated="(\d+)"/.exec(tag)?.[1] ?? 1);
    if (row + 1 === wanted && times === 1) return at;
    row += times;
    if (row >= wanted) return -1;
  }
  return -1;
}

import { isText } from '../table/column';
import type { Table } from '../table/table';

/** Two records that are the same in every column. */
export interface Twin {
  readonly record: number;
  /** The earlier one it repeats. */
  readonly of: number;
}

/** A 32-bit print of each record over all columns (FNV-1a's mixing step on the words of a value). */
export function recordPrints(table: Table): Int32Array {
  const prints = new Int32Array(table.length).fill(0x811c9dc5 | 0);
  const pair = new Int32Array(2);
  const asFloat = new Float64Array(pair.buffer);
  for (const column of table.columns) {
    if (isText(column)) {
      const { codes } = column;
      for (let i = 0; i < prints.length; i++) prints[i] = mix(prints[i], codes[i]);
    } else {
      const { values, unread } = column;
      for (let i = 0; i < prints.length; i++) {
        asFloat[0] = values[i];
        prints[i] = mix(mix(prints[i], pair[0]), pair[1]);
      }
      for (const [i, text] of unread)
        for (let k = 0; k < text.length; k++) prints[i] = mix(prints[i], text.charCodeAt(k));
    }
  }
  return prints;
}

const mix = (h: number, word: number): number => {
  const x = Math.imul(h ^ word, 0x01000193);
  return x ^ (x >>> 15);
};

/** Whether two records agree in every column, unread texts and blanks included. */
export function sameRecord(table: Table, a: number, b: number): boolean {
  for (const column of table.columns) {
    if (isText(column)) {
      if (column.codes[a] !== column.codes[b]) return false;
    } else {
      if (!Object.is(column.values[a], column.values[b])) return false;
      if (column.unread.get(a) !== column.unread.get(b)) return false;
    }
  }
  return true;
}

/** Records that stand twice: each with the first of its like. O(n) by print, verified by value. */
export function findTwins(table: Table): Twin[] {
  const prints = recordPrints(table);
  const size = 1 << Math.max(4, 33 - Math.clz32(Math.max(1, table.length)));
  const slots = new Int32Array(size).fill(-1);
  const next = new Int32Array(table.length).fill(-1);
  const twins: Twin[] = [];
  for (let i = 0; i < table.length; i++) {
    const slot = (prints[i] ^ (prints[i] >>> 16)) & (size - 1);
    let at = slots[slot];
    while (at >= 0 && !(prints[at] === prints[i] && sameRecord(table, at, i))) at = next[at];
    if (at >= 0) twins.push({ record: i, of: at });
    else {
      next[i] = slots[slot];
      slots[slot] = i;
    }
  }
  return twins;
}

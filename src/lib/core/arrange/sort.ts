import { isText, type Column } from '../table/column';
import { columnOf, type Table } from '../table/table';
import type { Steps } from '../steps/steps';
import { textRanks } from '../table/collate';
import type { SortKey } from './sortKey';

/** Digits of one sort key: 16-bit parts, least significant first. */
type Digits = readonly Uint16Array[];

/**
 * The record numbers in order. Stable; blanks last either way unless a key says first.
 * Least-significant-digit radix sort on 16-bit digits (Knuth, TAOCP 3, 5.2.5), digits that are the
 * same in every record left out. No keys: the order read.
 * @param current the order that equal records keep; the order read unless given
 */
export function* sortRecords(
  table: Table,
  keys: readonly SortKey[],
  current: Int32Array | null = null,
): Steps<Int32Array> {
  let order = new Int32Array(table.length);
  if (current) order.set(current);
  else for (let i = 0; i < order.length; i++) order[i] = i;
  let spare = new Int32Array(table.length);
  for (let k = keys.length - 1; k >= 0; k--) {
    const digits = digitsOf(columnOf(table, keys[k].column), keys[k]);
    yield undefined;
    for (const digit of digits) {
      if (radixPass(order, spare, digit)) [order, spare] = [spare, order];
      yield (keys.length - k - 0.5) / keys.length;
    }
  }
  return order;
}

/** One counting pass; false when all digits are equal and nothing moved. */
function radixPass(from: Int32Array, to: Int32Array, digit: Uint16Array): boolean {
  const starts = new Int32Array(65537);
  for (let i = 0; i < digit.length; i++) starts[digit[i] + 1]++;
  if (digit.length === 0 || starts[digit[0] + 1] === digit.length) return false;
  for (let d = 0; d < 65536; d++) starts[d + 1] += starts[d];
  for (let i = 0; i < from.length; i++) {
    const record = from[i];
    to[starts[digit[record]]++] = record;
  }
  return true;
}

/** Order-preserving unsigned digits; missing values get the highest or lowest of all. */
function digitsOf(column: Column, key: SortKey): Digits {
  if (isText(column)) {
    const ranks = textRanks(column.dictionary, key.hand);
    const top = column.dictionary.length + 1;
    return rankDigits(column.codes.length, top, (i) => {
      const code = column.codes[i];
      if (code < 0) return key.blanks === 'last' ? top : 0;
      return key.descending ? top - 1 - ranks[code] : ranks[code] + 1;
    });
  }
  return floatDigits(column.values, key);
}

function rankDigits(length: number, top: number, rankOf: (i: number) => number): Digits {
  const low = new Uint16Array(length);
  if (top < 65536) {
    for (let i = 0; i < length; i++) low[i] = rankOf(i);
    return [low];
  }
  const high = new Uint16Array(length);
  for (let i = 0; i < length; i++) {
    const rank = rankOf(i);
    low[i] = rank & 0xffff;
    high[i] = rank >>> 16;
  }
  return [low, high];
}

/**
 * A double as four digits that order as the number does: the sign bit turned for positive values,
 * all bits for negative ones. −0 counts as 0. Small whole ranges (days, counts) take one or two.
 */
function floatDigits(values: Float64Array, key: SortKey): Digits {
  const range = wholeRange(values);
  if (range && range.max - range.min < 0xfffffff0) {
    const span = range.max - range.min;
    return rankDigits(values.length, span + 2, (i) => {
      const v = values[i];
      if (v !== v) return key.blanks === 'last' ? span + 2 : 0;
      return (key.descending ? range.max - v : v - range.min) + 1;
    });
  }
  const words = new Uint32Array(2);
  const asFloat = new Float64Array(words.buffer);
  const parts = Array.from({ length: 4 }, () => new Uint16Array(values.length));
  const missing = key.blanks === 'last' ? 0xffffffff : 0;
  for (let i = 0; i < values.length; i++) {
    asFloat[0] = values[i] + 0;
    let [low, high] = [words[0], words[1]];
    if (values[i] !== values[i]) low = high = missing;
    else {
      if (high >>> 31) {
        high = ~high >>> 0;
        low = ~low >>> 0;
      } else high = (high | 0x80000000) >>> 0;
      if (key.descending) {
        high = ~high >>> 0;
        low = ~low >>> 0;
      }
    }
    parts[0][i] = low & 0xffff;
    parts[1][i] = low >>> 16;
    parts[2][i] = high & 0xffff;
    parts[3][i] = high >>> 16;
  }
  return parts;
}

/** Lowest and highest where all values are whole; null otherwise. */
function wholeRange(values: Float64Array): { min: number; max: number } | null {
  let min = Infinity;
  let max = -Infinity;
  for (let i = 0; i < values.length; i++) {
    const v = values[i];
    if (v !== v) continue;
    if (v % 1 !== 0) return null;
    if (v < min) min = v;
    if (v > max) max = v;
  }
  return min <= max ? { min, max } : { min: 0, max: 0 };
}

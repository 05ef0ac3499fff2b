import { columnFor } from '../expression/columnFor';
import { isText, type Column } from '../table/column';
import type { Table } from '../table/table';
import { inStretches, STRIDE, type Steps } from '../steps/steps';
import { textRanks } from '../table/collate';
import type { SortKey } from './sortKey';
import { orderRead } from '../table/recordOrder';

/** Records moved between two pauses. */
const PAUSE = 2 * STRIDE;

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
  let order = current ? current.slice() : orderRead(table.length);
  let spare = new Int32Array(table.length);
  for (let k = keys.length - 1; k >= 0; k--) {
    const digits = yield* digitsOf(columnFor(table, keys[k].column), keys[k]);
    yield undefined;
    for (const digit of digits) {
      if (yield* radixPass(order, spare, digit)) [order, spare] = [spare, order];
      yield (keys.length - k - 0.5) / keys.length;
    }
  }
  return order;
}

/** Records by one column, and which of them equal the one before. */
export interface SortedColumn {
  readonly order: Int32Array;
  /** 1 where the record at a place has the value of the one before it. */
  readonly tied: Uint8Array;
}

/**
 * Sorts by one column, equal records in the current order, and marks the ties on the way: digits
 * are small tables near the processor, where looking the values up again would go all over memory.
 */
export function* sortByColumn(
  column: Column,
  key: Omit<SortKey, 'column'>,
  current: Int32Array,
): Steps<SortedColumn> {
  let order = current.slice();
  let spare = new Int32Array(order.length);
  const whole = { ...key, column: column.id };
  const digits = (yield* unitDigits(column, whole)) ?? (yield* digitsOf(column, whole));
  const telling: Uint16Array[] = [];
  yield undefined;
  for (const digit of digits) {
    if (yield* radixPass(order, spare, digit)) {
      [order, spare] = [spare, order];
      telling.push(digit);
    }
    yield undefined;
  }
  return { order, tied: yield* tiesOf(order, telling) };
}

/** Equal in every digit that tells records apart; the lowest one, looked at first, tells most of them. */
function* tiesOf(order: Int32Array, digits: readonly Uint16Array[]): Steps<Uint8Array> {
  const tied = new Uint8Array(order.length);
  const [lowest, ...others] = digits;
  if (!lowest) return tied.fill(1, 1);
  let before = lowest[order[0]];
  for (let k = 1; k < order.length; k++) {
    const digit = lowest[order[k]];
    tied[k] = +(digit === before);
    before = digit;
    if (k % PAUSE === 0) yield undefined;
  }
  for (const digit of others)
    for (let k = 1; k < order.length; k++) {
      if (tied[k] === 1 && digit[order[k]] !== digit[order[k - 1]]) tied[k] = 0;
      if (k % PAUSE === 0) yield undefined;
    }
  return tied;
}

/** One counting pass; false when all digits are equal and nothing moved. */
function* radixPass(from: Int32Array, to: Int32Array, digit: Uint16Array): Steps<boolean> {
  const starts = new Int32Array(65537);
  for (let i = 0; i < digit.length; i++) starts[digit[i] + 1]++;
  if (digit.length === 0 || starts[digit[0] + 1] === digit.length) return false;
  for (let d = 0; d < 65536; d++) starts[d + 1] += starts[d];
  for (let i = 0; i < from.length; i++) {
    const record = from[i];
    to[starts[digit[record]]++] = record;
    if (i % PAUSE === 0) yield undefined;
  }
  return true;
}

/** Order-preserving unsigned digits; missing values get the highest or lowest of all. */
function* digitsOf(column: Column, key: SortKey): Steps<Digits> {
  if (isText(column)) {
    const ranks = textRanks(column.dictionary, key.hand);
    const top = column.dictionary.length + 1;
    return yield* rankDigits(column.codes.length, top, (i) => {
      const code = column.codes[i];
      if (code < 0) return key.blanks === 'last' ? top : 0;
      return key.descending ? top - 1 - ranks[code] : ranks[code] + 1;
    });
  }
  return yield* floatDigits(column.values, key);
}

function* rankDigits(length: number, top: number, rankOf: (i: number) => number): Steps<Digits> {
  const low = new Uint16Array(length);
  if (top < 65536) {
    yield* inStretches(length, (from, to) => {
      for (let i = from; i < to; i++) low[i] = rankOf(i);
    });
    return [low];
  }
  const high = new Uint16Array(length);
  yield* inStretches(length, (from, to) => {
    for (let i = from; i < to; i++) {
      const rank = rankOf(i);
      low[i] = rank & 0xffff;
      high[i] = rank >>> 16;
    }
  });
  return [low, high];
}

/** Whole values within a range, counted from its lower or upper end. */
function* wholeDigits(
  values: Float64Array,
  { min, max }: { readonly min: number; readonly max: number },
  key: SortKey,
): Steps<Digits> {
  const span = max - min;
  const missing = key.blanks === 'last' ? span + 2 : 0;
  return yield* rankDigits(values.length, span + 2, (i) => {
    const v = values[i];
    if (v !== v) return missing;
    return (key.descending ? max - v : v - min) + 1;
  });
}

/**
 * A double as four digits that order as the number does: the sign bit turned for positive values,
 * all bits for negative ones. −0 counts as 0. Small whole ranges (days, counts) take one or two.
 */
function* floatDigits(values: Float64Array, key: SortKey): Steps<Digits> {
  const range = wholeRange(values);
  if (range && range.max - range.min < 0xfffffff0) return yield* wholeDigits(values, range, key);
  yield undefined;
  const words = new Uint32Array(2);
  const asFloat = new Float64Array(words.buffer);
  const parts = Array.from({ length: 4 }, () => new Uint16Array(values.length));
  const missing = key.blanks === 'last' ? 0xffffffff : 0;
  yield* inStretches(values.length, (from, to) => {
    for (let i = from; i < to; i++) {
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
  });
  return parts;
}

/**
 * Digits of values that are whole in the column's smallest unit (pence of pounds): two where a
 * double takes four. Null where a value is not, or the range is too wide.
 */
function* unitDigits(column: Column, key: SortKey): Steps<Digits | null> {
  if (isText(column) || column.decimals < 1 || column.decimals > 6) return null;
  const { values } = column;
  const unit = 10 ** column.decimals;
  const units = new Float64Array(values.length);
  let fits = true;
  yield* inStretches(values.length, (from, to) => {
    for (let i = from; fits && i < to; i++) {
      const v = values[i];
      const n = Math.round(v * unit);
      if (n / unit !== v && v === v) fits = false;
      units[i] = n;
    }
  });
  const range = fits ? wholeRange(units) : null;
  yield undefined;
  return range && range.max - range.min < 0xfffffff0 ? yield* wholeDigits(units, range, key) : null;
}

/** Lowest and highest where all values are whole; null otherwise. */
function wholeRange(values: Float64Array): { min: number; max: number } | null {
  let min = Infinity;
  let max = -Infinity;
  for (let i = 0; i < values.length; i++) {
    const v = values[i];
    if (v !== v) continue;
    // `%` of doubles takes many times as long.
    if (Math.floor(v) !== v) return null;
    if (v < min) min = v;
    if (v > max) max = v;
  }
  return min <= max ? { min, max } : { min: 0, max: 0 };
}

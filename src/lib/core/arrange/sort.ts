import { columnInSteps } from '../expression/columnFor';
import { isText, type Column } from '../table/column';
import type { Table } from '../table/table';
import { inStretches, partOf, STRIDE, type Task } from '../task/task';
import { textRanks } from '../table/textRanks';
import type { SortKey } from './sortKey';
import { wholeRange } from './wholeRange';
import { orderReadInSteps } from '../table/recordOrder';

/** Records moved between two pauses. */
const PAUSE = STRIDE;

/** The share of sorting in a sort that marks its ties. */
const SORTING = 0.75;

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
): Task<Int32Array> {
  let order = current ? current.slice() : yield* orderReadInSteps(table.length);
  if (keys.length === 0) return order;
  let spare = new Int32Array(table.length);
  for (let k = keys.length - 1; k >= 0; k--) {
    const digits = yield* digitsOf(yield* columnInSteps(table, keys[k].column), keys[k]);
    const done = keys.length - 1 - k;
    yield done / keys.length;
    for (const [n, digit] of digits.entries()) {
      const from = (done + n / digits.length) / keys.length;
      const to = (done + (n + 1) / digits.length) / keys.length;
      if (yield* partOf(radixPass(order, spare, digit), from, to)) [order, spare] = [spare, order];
      yield to;
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
): Task<SortedColumn> {
  let order = current.slice();
  let spare = new Int32Array(order.length);
  const whole = { ...key, column: column.id };
  const digits = (yield* unitDigits(column, whole)) ?? (yield* digitsOf(column, whole));
  const telling: Uint16Array[] = [];
  yield 0;
  for (const [n, digit] of digits.entries()) {
    const pass = radixPass(order, spare, digit);
    const from = (SORTING * n) / digits.length;
    if (yield* partOf(pass, from, from + SORTING / digits.length)) {
      [order, spare] = [spare, order];
      telling.push(digit);
    }
  }
  return { order, tied: yield* partOf(tiesOf(order, telling), SORTING, 1) };
}

/** Equal in every digit that tells records apart; the lowest one, looked at first, tells most of them. */
function* tiesOf(order: Int32Array, digits: readonly Uint16Array[]): Task<Uint8Array> {
  const tied = new Uint8Array(order.length);
  const [lowest, ...others] = digits;
  if (!lowest) return tied.fill(1, 1);
  const own = inStretches(
    order.length,
    (from, to) => markTies(order, lowest, tied, from, to),
    PAUSE,
    true,
  );
  yield* partOf(own, 0, 1 / digits.length);
  for (const [n, digit] of others.entries()) {
    const apart = inStretches(
      order.length,
      (from, to) => tellApart(order, digit, tied, from, to),
      PAUSE,
      true,
    );
    yield* partOf(apart, (n + 1) / digits.length, (n + 2) / digits.length);
  }
  return tied;
}

function markTies(
  order: Int32Array,
  digit: Uint16Array,
  tied: Uint8Array,
  from: number,
  to: number,
): void {
  let before = from > 0 ? digit[order[from - 1]] : -1;
  for (let k = from; k < to; k++) {
    const own = digit[order[k]];
    tied[k] = +(own === before);
    before = own;
  }
}

function tellApart(
  order: Int32Array,
  digit: Uint16Array,
  tied: Uint8Array,
  from: number,
  to: number,
): void {
  for (let k = Math.max(1, from); k < to; k++)
    if (tied[k] === 1 && digit[order[k]] !== digit[order[k - 1]]) tied[k] = 0;
}

/** One counting pass; false when all digits are equal and nothing moved. */
function* radixPass(from: Int32Array, to: Int32Array, digit: Uint16Array): Task<boolean> {
  const starts = new Int32Array(65537);
  yield* inStretches(digit.length, (first, last) => {
    for (let i = first; i < last; i++) starts[digit[i] + 1]++;
  });
  if (digit.length === 0 || starts[digit[0] + 1] === digit.length) return false;
  for (let d = 0; d < 65536; d++) starts[d + 1] += starts[d];
  yield* inStretches(
    from.length,
    (first, last) => move(from, to, digit, starts, first, last),
    PAUSE,
    true,
  );
  return true;
}

function move(
  from: Int32Array,
  to: Int32Array,
  digit: Uint16Array,
  starts: Int32Array,
  first: number,
  last: number,
): void {
  for (let i = first; i < last; i++) {
    const record = from[i];
    to[starts[digit[record]]++] = record;
  }
}

/** Order-preserving unsigned digits; missing values get the highest or lowest of all. */
function* digitsOf(column: Column, key: SortKey): Task<Digits> {
  if (isText(column)) {
    const ranks = yield* textRanks(column.dictionary, key.hand);
    const top = column.dictionary.length + 1;
    return yield* rankDigits(column.codes.length, top, (i) => {
      const code = column.codes[i];
      if (code < 0) return key.blanks === 'last' ? top : 0;
      return key.descending ? top - 1 - ranks[code] : ranks[code] + 1;
    });
  }
  return yield* floatDigits(column.values, key);
}

function* rankDigits(length: number, top: number, rankOf: (i: number) => number): Task<Digits> {
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
): Task<Digits> {
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
function* floatDigits(values: Float64Array, key: SortKey): Task<Digits> {
  const range = yield* wholeRange(values);
  if (range && range.max - range.min < 0xfffffff0) return yield* wholeDigits(values, range, key);
  yield undefined;
  const words = new Uint32Array(2);
  const asFloat = new Float64Array(words.buffer);
  const parts = Array.from({ length: 4 }, () => new Uint16Array(values.length));
  const missing = key.blanks === 'last' ? 0xffffffff : 0;
  yield* inStretches(values.length, (from, to) => {
    for (let i = from; i < to; i++) {
      asFloat[0] = values[i] + 0;
      let low = words[0];
      let high = words[1];
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
function* unitDigits(column: Column, key: SortKey): Task<Digits | null> {
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
  const range = fits ? yield* wholeRange(units) : null;
  yield undefined;
  return range && range.max - range.min < 0xfffffff0 ? yield* wholeDigits(units, range, key) : null;
}

import { fullCell } from '../../../table/cell';
import { inStretches, STRIDE, type Task } from '../../../task/task';
import { isText, type Column, type ScalarColumn } from '../../../table/column';
import { DistinctNumbers } from '../../../table/distinctNumbers';

/** Columns of two readings whose cells are the same where their values are. */
const alike = (a: ScalarColumn, b: ScalarColumn): boolean =>
  a.type === b.type &&
  a.percent === b.percent &&
  a.grain === b.grain &&
  JSON.stringify(a.calendar ?? null) === JSON.stringify(b.calendar ?? null);

/** Whether a cell of the older column is the same, in full, as one of the newer. */
export type SameCell = (older: number, newer: number) => boolean;

export function sameCells(older: Column, newer: Column): SameCell {
  if (isText(older) && isText(newer)) {
    const known = new Map(newer.dictionary.map((text, code) => [text, code]));
    const there = Int32Array.from(older.dictionary, (text) => known.get(text) ?? -2);
    return (a, b) => {
      const code = older.codes[a];
      return (code < 0 ? -1 : there[code]) === newer.codes[b];
    };
  }
  if (isText(older) || isText(newer) || !alike(older, newer))
    return (a, b) => fullCell(older, a) === fullCell(newer, b);
  return (a, b) => {
    const v = older.values[a];
    const w = newer.values[b];
    if (v === v || w === w) return v === w;
    return (older.unread.get(a) ?? '') === (newer.unread.get(b) ?? '');
  };
}

/** Numbers for the cells of two readings: the same number for the same cell. */
export interface Codes {
  readonly older: Int32Array;
  readonly newer: Int32Array;
  readonly size: number;
}

/** By the cells of one column. */
export function* codesOfCells(older: Column, newer: Column, lengths: Lengths): Task<Codes> {
  if (isText(older) || isText(newer) || !alike(older, newer)) {
    const known = new Map<string, number>();
    const codeOf = (text: string): number => {
      let code = known.get(text);
      if (code === undefined) known.set(text, (code = known.size));
      return code;
    };
    const each = (column: Column, length: number): Task<Int32Array> =>
      isText(column)
        ? codesOfTexts(column, codeOf)
        : numbered(length, (i) => codeOf(fullCell(column, i)));
    const [then, now] = [yield* each(older, lengths.older), yield* each(newer, lengths.newer)];
    return { older: then, newer: now, size: known.size };
  }
  // What is no value is told apart by its text, blank by none; values have the codes behind them.
  const texts = [...new Set(['', ...older.unread.values(), ...newer.unread.values()])];
  const codeOf = new Map(texts.map((text, code) => [text, code]));
  const met = new DistinctNumbers(lengths.older + lengths.newer);
  const each = ({ values, unread }: ScalarColumn): Task<Int32Array> =>
    numbered(values.length, (i) => {
      const v = values[i];
      return v === v ? texts.length + met.placeOf(v) : (codeOf.get(unread.get(i) ?? '') ?? 0);
    });
  const [then, now] = [yield* each(older), yield* each(newer)];
  return { older: then, newer: now, size: texts.length + met.size };
}

interface Lengths {
  readonly older: number;
  readonly newer: number;
}

function* numbered(length: number, codeAt: (i: number) => number): Task<Int32Array> {
  const out = new Int32Array(length);
  yield* inStretches(
    length,
    (from, to) => {
      for (let i = from; i < to; i++) out[i] = codeAt(i);
    },
    STRIDE,
  );
  return out;
}

function* codesOfTexts(
  { codes, dictionary }: Extract<Column, { type: 'text' }>,
  codeOf: (text: string) => number,
): Task<Int32Array> {
  const blank = codeOf('');
  const places = yield* numbered(dictionary.length, (k) => codeOf(dictionary[k]));
  return yield* numbered(codes.length, (i) => (codes[i] < 0 ? blank : places[codes[i]]));
}

/** By two codes together. */
export function* codesTogether(a: Codes, b: Codes): Task<Codes> {
  const met = new DistinctNumbers(a.older.length + a.newer.length);
  const each = (first: Int32Array, second: Int32Array): Task<Int32Array> =>
    numbered(first.length, (i) => met.placeOf(first[i] * b.size + second[i]));
  const [older, newer] = [yield* each(a.older, b.older), yield* each(a.newer, b.newer)];
  return { older, newer, size: met.size };
}

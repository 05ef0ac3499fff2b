import { fullCell } from '../../table/cell';
import { isText, type Column, type ScalarColumn } from '../../table/column';

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
export function codesOfCells(older: Column, newer: Column, lengths: Lengths): Codes {
  if (isText(older) || isText(newer) || !alike(older, newer)) {
    const known = new Map<string, number>();
    const each = (column: Column, length: number): Int32Array =>
      isText(column)
        ? codesOfTexts(column, known)
        : numbered(length, known, (i) => fullCell(column, i));
    return {
      older: each(older, lengths.older),
      newer: each(newer, lengths.newer),
      get size() {
        return known.size;
      },
    };
  }
  // What is no value is told apart by its text, blank by none.
  const known = new Map<number | string, number>();
  const each = ({ values, unread }: ScalarColumn): Int32Array =>
    numbered(values.length, known, (i) => {
      const v = values[i];
      return v === v ? v : (unread.get(i) ?? '');
    });
  return { older: each(older), newer: each(newer), size: known.size };
}

interface Lengths {
  readonly older: number;
  readonly newer: number;
}

function numbered<K>(length: number, known: Map<K, number>, keyAt: (i: number) => K): Int32Array {
  const out = new Int32Array(length);
  for (let i = 0; i < length; i++) {
    const key = keyAt(i);
    let code = known.get(key);
    if (code === undefined) known.set(key, (code = known.size));
    out[i] = code;
  }
  return out;
}

function codesOfTexts(
  { codes, dictionary }: Extract<Column, { type: 'text' }>,
  known: Map<string, number>,
): Int32Array {
  const place = (text: string): number => {
    let code = known.get(text);
    if (code === undefined) known.set(text, (code = known.size));
    return code;
  };
  const blank = place('');
  const places = Int32Array.from(dictionary, place);
  return codes.map((code) => (code < 0 ? blank : places[code]));
}

/** By two codes together. */
export function codesTogether(a: Codes, b: Codes): Codes {
  const known = new Map<number, number>();
  const each = (first: Int32Array, second: Int32Array): Int32Array =>
    numbered(first.length, known, (i) => first[i] * b.size + second[i]);
  return { older: each(a.older, b.older), newer: each(a.newer, b.newer), size: known.size };
}

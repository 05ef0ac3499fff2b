import { DAY_MS } from '../table/calendar';
import { showScalar } from '../table/cell';
import { isText, type Column, type ScalarColumn, type TextColumn } from '../table/column';
import { periodLabel, periodOf } from '../table/period';
import { textRanks } from '../table/collate';
import type { GroupKey } from './groupKey';

/** Each record's group at one level, as an integer. */
export interface GroupCodes {
  /** 0..size-1 for each record; -1 where the key is blank or unread. */
  readonly codes: Int32Array;
  readonly size: number;
  /** The group's name; the code -1 has one too. */
  label(code: number): string;
  /** The place of each code in label order; the blank group comes last. */
  rank(code: number): number;
}

export const BLANK_LABEL = 'blank';

/** Group codes of a key. Equal keys make one group, wherever their records stand. */
export function groupCodes(column: Column, key: GroupKey): GroupCodes {
  if (isText(column)) return textCodes(column, key.loose);
  const dated = column.type === 'date' || column.type === 'datetime';
  if (dated && key.period) {
    const { period } = key;
    const perDay = column.type === 'datetime' ? DAY_MS : 1;
    return scalarCodes(
      column,
      (v) => periodOf(perDay === 1 ? v : Math.floor(v / perDay), period),
      (index) => periodLabel(index, period),
    );
  }
  return scalarCodes(column, null, (v) => showScalar(column, v));
}

/** The form under which loosely equal texts are one. */
export const looseForm = (text: string): string => text.trim().replace(/\s+/g, ' ').toLowerCase();

function textCodes(column: TextColumn, loose: boolean): GroupCodes {
  let labels: readonly string[] = column.dictionary;
  let merged: Int32Array | null = null;
  if (loose) {
    const known = new Map<string, number>();
    const firsts: string[] = [];
    merged = Int32Array.from(column.dictionary, (text) => {
      const form = looseForm(text);
      let code = known.get(form);
      if (code === undefined) {
        known.set(form, (code = firsts.length));
        firsts.push(text.trim());
      }
      return code;
    });
    labels = firsts;
  }
  const { codes: raw } = column;
  // A column with nothing to merge is its own grouping.
  const to = merged;
  const codes = to ? raw.map((code) => (code < 0 ? -1 : to[code])) : raw;
  return named(codes, labels.length, (code) => labels[code], textRanks(labels));
}

const named = (
  codes: Int32Array,
  size: number,
  label: (code: number) => string,
  ranks: Int32Array,
): GroupCodes => ({
  codes,
  size,
  label: (code) => (code < 0 ? BLANK_LABEL : label(code)),
  rank: (code) => (code < 0 ? size : ranks[code]),
});

/** How many neighbouring whole values are looked up in a table instead of a map. */
const DIRECT = 1 << 20;

function scalarCodes(
  column: ScalarColumn,
  indexOf: ((value: number) => number) | null,
  label: (index: number) => string,
): GroupCodes {
  const { values } = column;
  const codes = new Int32Array(values.length);
  const indexes: number[] = [];
  const codeOf = codeTable(values, indexOf, indexes);
  for (let i = 0; i < values.length; i++) {
    const v = values[i];
    codes[i] = v === v ? codeOf(v) : -1;
  }
  const order = Int32Array.from(indexes.keys()).sort((a, b) => indexes[a] - indexes[b]);
  const ranks = new Int32Array(indexes.length);
  order.forEach((code, rank) => (ranks[code] = rank));
  return named(codes, indexes.length, (code) => label(indexes[code]), ranks);
}

/** Value → code, new codes in the order met. Whole values of a small range go through an array. */
function codeTable(
  values: Float64Array,
  indexOf: ((value: number) => number) | null,
  indexes: number[],
): (value: number) => number {
  const byIndex = new Map<number, number>();
  const codeOfIndex = (v: number): number => {
    const index = indexOf ? indexOf(v) : v + 0;
    let code = byIndex.get(index);
    if (code === undefined) {
      byIndex.set(index, (code = indexes.length));
      indexes.push(index);
    }
    return code;
  };
  let min = Infinity;
  let max = -Infinity;
  for (let i = 0; i < values.length; i++) {
    const v = values[i];
    if (v !== v) continue;
    if (v % 1 !== 0) return codeOfIndex;
    if (v < min) min = v;
    if (v > max) max = v;
  }
  if (!(max - min < DIRECT)) return codeOfIndex;
  const direct = new Int32Array(max - min + 1).fill(-1);
  return (v) => {
    const at = v - min;
    const code = direct[at];
    return code >= 0 ? code : (direct[at] = codeOfIndex(v));
  };
}

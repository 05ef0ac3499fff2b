import { DAY_MS } from '../table/calendar';
import { showScalar } from '../table/cell';
import { isText, type Column, type ScalarColumn, type TextColumn } from '../table/column';
import { periodLabel, periodOf } from '../table/period';
import { textRanks } from './collate';
import type { GroupKey } from './groupKey';

/** Each record's group at one level, as an integer. */
export interface GroupCodes {
  /** 0..size-1 for each record. */
  readonly codes: Int32Array;
  readonly size: number;
  label(code: number): string;
  /** The place of each code in label order; the blank group is last. */
  readonly ranks: Int32Array;
  /** The code of records that are blank or unread in the key; -1 where there are none. */
  readonly blank: number;
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
  const blankCode = labels.length;
  const anyBlank = raw.includes(-1);
  // A column without blanks and nothing to merge is its own grouping.
  const codes = anyBlank || merged ? new Int32Array(raw.length) : raw;
  if (codes !== raw)
    for (let i = 0; i < raw.length; i++) {
      const code = raw[i];
      codes[i] = code < 0 ? blankCode : merged ? merged[code] : code;
    }
  const ranks = new Int32Array(blankCode + 1);
  ranks.set(textRanks(labels));
  ranks[blankCode] = blankCode;
  return {
    codes,
    size: blankCode + (anyBlank ? 1 : 0),
    label: (code) => (code === blankCode ? BLANK_LABEL : labels[code]),
    ranks,
    blank: anyBlank ? blankCode : -1,
  };
}

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
  let anyBlank = false;
  for (let i = 0; i < values.length; i++) {
    const v = values[i];
    if (v === v) codes[i] = codeOf(v);
    else {
      codes[i] = -1;
      anyBlank = true;
    }
  }
  const blankCode = indexes.length;
  if (anyBlank) for (let i = 0; i < codes.length; i++) if (codes[i] < 0) codes[i] = blankCode;
  const order = Int32Array.from(indexes.keys()).sort((a, b) => indexes[a] - indexes[b]);
  const ranks = new Int32Array(blankCode + 1);
  order.forEach((code, rank) => (ranks[code] = rank));
  ranks[blankCode] = blankCode;
  return {
    codes,
    size: blankCode + (anyBlank ? 1 : 0),
    label: (code) => (code === blankCode ? BLANK_LABEL : label(indexes[code])),
    ranks,
    blank: anyBlank ? blankCode : -1,
  };
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

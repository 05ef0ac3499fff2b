import { inStretches, pausing, STRIDE, type Steps } from '../steps/steps';
import type { TextColumn } from '../table/column';
import type { Grouping } from './grouping';
import type { Leafed } from './leafed';

/** At most so many marks (leaves × distinct texts) are kept; beyond, values are sorted instead. */
const MOST = 1 << 25;

export const fitsMarks = (leaves: number, column: TextColumn): boolean =>
  leaves * column.dictionary.length <= MOST;

/** One byte for each leaf and text, 1 where the text occurs. Marks of leaves merge by "or". */
export function* markDistinct(
  { records, leafOf, leaves }: Leafed,
  column: TextColumn,
): Steps<Uint8Array> {
  const { codes, dictionary } = column;
  const texts = dictionary.length;
  const marks = new Uint8Array(leaves * texts);
  yield* inStretches(records.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const i = records[k];
      const code = codes[i];
      if (code >= 0) marks[leafOf[i] * texts + code] = 1;
    }
  });
  return marks;
}

/** Distinct texts of each group. */
export function* distinctCounts(
  marks: Uint8Array,
  texts: number,
  grouping: Grouping,
): Steps<Float64Array> {
  const { size, of } = grouping;
  const out = new Float64Array(size);
  const first = new Int32Array(size).fill(-1);
  const merged = new Map<number, Uint8Array>();
  const due = pausing(2 * STRIDE);
  let looked = 0;
  for (let leaf = 0; leaf < of.length; leaf++) {
    const g = of[leaf];
    if (g < 0) continue;
    if (first[g] < 0) {
      first[g] = leaf;
      continue;
    }
    const union = merged.get(g) ?? marks.slice(first[g] * texts, (first[g] + 1) * texts);
    merged.set(g, union);
    const start = leaf * texts;
    const add = (from: number, to: number): void => {
      for (let t = from; t < to; t++) union[t] |= marks[start + t];
    };
    if (texts > STRIDE) yield* inStretches(texts, add);
    else add(0, texts);
    if (due((looked += texts))) yield undefined;
  }
  for (let g = 0; g < size; g++) {
    if (first[g] < 0) continue;
    const union = merged.get(g) ?? marks.subarray(first[g] * texts, (first[g] + 1) * texts);
    const count = (from: number, to: number): void => {
      let n = 0;
      for (let t = from; t < to; t++) n += union[t];
      out[g] += n;
    };
    if (texts > STRIDE) yield* inStretches(texts, count);
    else count(0, texts);
    if (due((looked += texts))) yield undefined;
  }
  return out;
}

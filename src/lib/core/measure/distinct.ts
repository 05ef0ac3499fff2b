import { inStretches, STRIDE, type Task } from '../task/task';
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
): Task<Uint8Array> {
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
): Task<Float64Array> {
  const { size, of } = grouping;
  const out = new Float64Array(size);
  const first = new Int32Array(size).fill(-1);
  const merged = new Map<number, Uint8Array>();
  /** A group of several leaves has marks of its own. */
  const marksOf = (g: number): Uint8Array =>
    merged.get(g) ?? marks.subarray(first[g] * texts, (first[g] + 1) * texts);
  const add = (leaf: number): void => {
    const g = of[leaf];
    if (g < 0) return;
    if (first[g] < 0) {
      first[g] = leaf;
      return;
    }
    let union = merged.get(g);
    if (!union) merged.set(g, (union = marksOf(g).slice()));
    const start = leaf * texts;
    for (let t = 0; t < texts; t++) union[t] |= marks[start + t];
  };
  // As many leaves or groups as have a stride's marks.
  const stride = Math.max(1, Math.floor((2 * STRIDE) / texts));
  yield* inStretches(
    of.length,
    (from, to) => {
      for (let leaf = from; leaf < to; leaf++) add(leaf);
    },
    stride,
  );
  yield* inStretches(
    size,
    (from, to) => {
      for (let g = from; g < to; g++) {
        if (first[g] < 0) continue;
        const own = marksOf(g);
        for (let t = 0; t < texts; t++) out[g] += own[t];
      }
    },
    stride,
  );
  return out;
}

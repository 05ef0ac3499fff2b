import { addedUp } from '../task/arrays';
import { inStretches, STRIDE, type Task } from '../task/task';
import type { Grouping } from './grouping';

/** The values of each group side by side: group g has values[start[g]..start[g+1]-1]. */
export interface Slices {
  readonly values: Float64Array;
  readonly start: Int32Array;
}

/**
 * Gathers the values that are there, group by group: one counting pass, one placing pass.
 * @param groupOf group of each record of the list
 * @param records the selection, as record numbers
 */
export function* gather(
  values: Float64Array,
  groupOf: Int32Array,
  size: number,
  records: Int32Array,
  weights?: Float64Array,
): Task<Slices> {
  if (weights) return yield* gatherWeighted(values, groupOf, size, records, weights);
  const start = new Int32Array(size + 1);
  yield* inStretches(records.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const i = records[k];
      if (values[i] === values[i]) start[groupOf[i] + 1]++;
    }
  });
  yield* addedUp(start);
  const out = new Float64Array(start[size]);
  const at = start.slice();
  yield* inStretches(records.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const i = records[k];
      const v = values[i];
      if (v === v) out[at[groupOf[i]]++] = v;
    }
  });
  return { values: out, start };
}

/** The same of rows that stand for several records each: their value as many times. */
function* gatherWeighted(
  values: Float64Array,
  groupOf: Int32Array,
  size: number,
  rows: Int32Array,
  weights: Float64Array,
): Task<Slices> {
  const start = new Int32Array(size + 1);
  yield* inStretches(rows.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const i = rows[k];
      if (values[i] === values[i]) start[groupOf[i] + 1] += weights[i];
    }
  });
  yield* addedUp(start);
  const out = new Float64Array(start[size]);
  const at = start.slice();
  yield* inStretches(rows.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const i = rows[k];
      const v = values[i];
      if (v !== v) continue;
      const g = groupOf[i];
      out.fill(v, at[g], at[g] + weights[i]);
      at[g] += weights[i];
    }
  });
  return { values: out, start };
}

/** So few values are copied one by one sooner than as a part of an array. */
const FEW = 32;

/** The slices of leaves put together by group, copied so that they can be moved about. */
export function* regroup({ values, start }: Slices, { size, of }: Grouping): Task<Slices> {
  const to = new Int32Array(size + 1);
  yield* inStretches(of.length, (first, end) => {
    for (let leaf = first; leaf < end; leaf++)
      if (of[leaf] >= 0) to[of[leaf] + 1] += start[leaf + 1] - start[leaf];
  });
  yield* addedUp(to);
  const out = new Float64Array(to[size]);
  const at = to.slice();
  /** Leaves of very many values, which are copied in parts. */
  const long: { from: number; size: number; to: number }[] = [];
  yield* inStretches(
    of.length,
    (first, end) => {
      for (let leaf = first; leaf < end; leaf++) {
        const g = of[leaf];
        if (g < 0) continue;
        const size = start[leaf + 1] - start[leaf];
        if (size > STRIDE) long.push({ from: start[leaf], size, to: at[g] });
        else if (size > FEW) out.set(values.subarray(start[leaf], start[leaf + 1]), at[g]);
        else for (let k = 0; k < size; k++) out[at[g] + k] = values[start[leaf] + k];
        at[g] += size;
      }
    },
    // As many leaves as have about a stride's values together.
    Math.max(1, Math.ceil((STRIDE * of.length) / Math.max(1, values.length))),
  );
  for (const { from, size, to: place } of long)
    yield* inStretches(size, (first, end) =>
      out.set(values.subarray(from + first, from + end), place + first),
    );
  return { values: out, start: to };
}

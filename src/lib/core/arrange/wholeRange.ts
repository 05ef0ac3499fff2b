import { inStretches, type Task } from '../task/task';

/** Lowest and highest where all values are whole, 0 and 0 where there is none; null otherwise. NaN is no value. */
export function* wholeRange(values: Float64Array): Task<{ min: number; max: number } | null> {
  let min = Infinity;
  let max = -Infinity;
  let whole = true;
  yield* inStretches(values.length, (from, to) => {
    let low = min;
    let high = max;
    for (let i = from; whole && i < to; i++) {
      const v = values[i];
      if (v !== v) continue;
      // `%` of doubles takes many times as long.
      if (Math.floor(v) !== v) whole = false;
      if (v < low) low = v;
      if (v > high) high = v;
    }
    min = low;
    max = high;
  });
  if (!whole) return null;
  return min <= max ? { min, max } : { min: 0, max: 0 };
}

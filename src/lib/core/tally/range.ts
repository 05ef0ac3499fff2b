import type { ScalarColumn } from '../table/column';

/** Lowest and highest value; min > max where there is none. */
export interface Range {
  readonly min: number;
  readonly max: number;
}

const ranges = new WeakMap<Float64Array, Range>();

/** Lowest and highest value of a whole column; found once and kept as long as its values. */
export function rangeOf({ values }: ScalarColumn): Range {
  let range = ranges.get(values);
  if (!range) {
    let [min, max] = [Infinity, -Infinity];
    for (let i = 0; i < values.length; i++) {
      if (values[i] < min) min = values[i];
      if (values[i] > max) max = values[i];
    }
    ranges.set(values, (range = { min, max }));
  }
  return range;
}

/** The same among some records. */
export function rangeAmong(values: Float64Array, records: Int32Array): Range {
  let [min, max] = [Infinity, -Infinity];
  for (let k = 0; k < records.length; k++) {
    const v = values[records[k]];
    if (v < min) min = v;
    if (v > max) max = v;
  }
  return { min, max };
}

import { finish, inStretches, type Task } from '../../task/task';
import type { ScalarColumn } from '../../table/column';

/** Lowest and highest value; min > max where there is none. */
export interface Range {
  readonly min: number;
  readonly max: number;
}

const ranges = new WeakMap<Float64Array, Range>();

/** Lowest and highest value of a whole column, with pauses; found once and kept as long as its values. */
export function* rangeInSteps({ values }: ScalarColumn): Task<Range> {
  let range = ranges.get(values);
  if (!range) {
    let so: Range = NOTHING;
    yield* inStretches(values.length, (from, to) => {
      so = widened(so, values, from, to);
    });
    ranges.set(values, (range = so));
  }
  return range;
}

/** The same at one go. */
export const rangeOf = (column: ScalarColumn): Range => finish(rangeInSteps(column));

const NOTHING: Range = { min: Infinity, max: -Infinity };

function widened(before: Range, values: Float64Array, from: number, to: number): Range {
  let min = before.min;
  let max = before.max;
  for (let i = from; i < to; i++) {
    const v = values[i];
    if (v < min) min = v;
    if (v > max) max = v;
  }
  return { min, max };
}

/** The same among some records. */
export function* rangeAmong(values: Float64Array, records: Int32Array): Task<Range> {
  let min = Infinity;
  let max = -Infinity;
  yield* inStretches(records.length, (from, to) => {
    let low = min;
    let high = max;
    for (let k = from; k < to; k++) {
      const v = values[records[k]];
      if (v < low) low = v;
      if (v > high) high = v;
    }
    min = low;
    max = high;
  });
  return { min, max };
}

import { numbersOf } from '../task/arrays';
import { inStretches, type Task } from '../task/task';
import type { Column } from '../table/column';
import type { FiguresOf, Leafed } from './leafed';
import { addUp } from './grouping';
import { valuesOf } from './valuesOf';

/**
 * Σ w·x ÷ Σ w over the records that have both; a record lacking either is skipped. None where the
 * weights add up to 0. Both sums are compensated (Neumaier 1974) and merge.
 */
export function* weightedMeans(input: Leafed, column: Column, weights: Column): Task<FiguresOf> {
  const { records, leafOf, leaves } = input;
  const { values: x } = yield* valuesOf(column);
  const { values: w } = yield* valuesOf(weights);
  const sums = [0, 1].map(() => ({
    high: new Float64Array(leaves),
    low: new Float64Array(leaves),
  }));
  const add = (to: (typeof sums)[0], leaf: number, v: number): void => {
    const s = to.high[leaf];
    const t = s + v;
    const b = t - s;
    to.low[leaf] += s - (t - b) + (v - b);
    to.high[leaf] = t;
  };
  yield* inStretches(records.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const i = records[k];
      if (x[i] !== x[i] || w[i] !== w[i]) continue;
      add(sums[0], leafOf[i], x[i] * w[i]);
      add(sums[1], leafOf[i], w[i]);
    }
  });
  return function* (grouping) {
    const added: Float64Array[] = [];
    for (const { high, low } of sums) {
      const [h, l] = [yield* addUp(high, grouping), yield* addUp(low, grouping)];
      added.push(yield* numbersOf(h.length, (g) => h[g] + l[g]));
    }
    const [top, bottom] = added;
    return yield* numbersOf(top.length, (g) => (bottom[g] === 0 ? NaN : top[g] / bottom[g]));
  };
}

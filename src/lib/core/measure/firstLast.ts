import { filled, numbersOf } from '../task/arrays';
import { inStretches, type Task } from '../task/task';
import { isText, type Column } from '../table/column';
import type { FiguresOf, Leafed } from './leafed';

/**
 * The first or last value that is there, in the current order. Merges: the place nearest to the end
 * that is asked for wins.
 */
export function* firstOrLast(
  { ordered, leafOf, leaves }: Leafed,
  column: Column,
  kind: 'first' | 'last',
): Task<FiguresOf> {
  const place = yield* filled(new Float64Array(leaves), -1);
  const step = kind === 'first' ? 1 : -1;
  const has = isText(column)
    ? (i: number): boolean => column.codes[i] >= 0
    : (i: number): boolean => column.values[i] === column.values[i];
  const first = step > 0 ? 0 : ordered.length - 1;
  yield* inStretches(ordered.length, (from, to) => {
    for (let n = from; n < to; n++) {
      const record = ordered[first + step * n];
      const leaf = leafOf[record];
      if (place[leaf] < 0 && has(record)) place[leaf] = n;
    }
  });
  return function* ({ size, of }) {
    const nearest = yield* filled(new Float64Array(size), Infinity);
    yield* inStretches(of.length, (from, to) => {
      for (let leaf = from; leaf < to; leaf++) {
        const g = of[leaf];
        if (g >= 0 && place[leaf] >= 0 && place[leaf] < nearest[g]) nearest[g] = place[leaf];
      }
    });
    return yield* numbersOf(size, (g) => {
      const n = nearest[g];
      if (n === Infinity) return NaN;
      const i = ordered[first + step * n];
      return isText(column) ? column.codes[i] : column.values[i];
    });
  };
}

import { filled, numbersOf } from '../task/arrays';
import { inStretches, type Task } from '../task/task';
import { isText, type Column } from '../table/column';
import type { FiguresOf, Leafed } from './leafed';
import { valuesOf } from './valuesOf';

/**
 * The value of another column in the record that holds the lowest or highest, the first one in the
 * current order on a tie; and how many records tie there. Merges: the further value wins, on equal
 * ones the earlier place, and ties add up.
 */
export function* extremesAt(
  { ordered, leafOf, leaves }: Leafed,
  column: Column,
  shown: Column,
  kind: 'atMin' | 'atMax' | 'minTies' | 'maxTies',
): Task<FiguresOf> {
  const { values } = yield* valuesOf(column);
  const sign = kind === 'atMin' || kind === 'minTies' ? -1 : 1;
  const best = yield* filled(new Float64Array(leaves), NaN);
  const place = new Int32Array(leaves);
  const ties = new Float64Array(leaves);
  yield* inStretches(ordered.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const i = ordered[k];
      const v = values[i] * sign;
      if (v !== v) continue;
      const leaf = leafOf[i];
      if (v === best[leaf]) ties[leaf]++;
      else if (!(v < best[leaf])) {
        best[leaf] = v;
        place[leaf] = k;
        ties[leaf] = 1;
      }
    }
  });
  return function* ({ size, of }) {
    const top = yield* filled(new Float64Array(size), NaN);
    const at = new Int32Array(size);
    const count = new Float64Array(size);
    yield* inStretches(of.length, (from, to) => {
      for (let leaf = from; leaf < to; leaf++) {
        const g = of[leaf];
        if (g < 0 || best[leaf] !== best[leaf] || best[leaf] < top[g]) continue;
        if (best[leaf] === top[g]) {
          count[g] += ties[leaf];
          at[g] = Math.min(at[g], place[leaf]);
          continue;
        }
        top[g] = best[leaf];
        at[g] = place[leaf];
        count[g] = ties[leaf];
      }
    });
    if (kind === 'minTies' || kind === 'maxTies') return count;
    return yield* numbersOf(size, (g) => {
      if (top[g] !== top[g]) return NaN;
      const i = ordered[at[g]];
      if (!isText(shown)) return shown.values[i];
      return shown.codes[i] < 0 ? NaN : shown.codes[i];
    });
  };
}

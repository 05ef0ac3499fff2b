import { inStretches, type Task } from '../task/task';
import { wordsFor, type Bitset } from '../table/bitset';

const kept = new WeakMap<Float64Array, Bitset>();

/** Records that have a value. Found once for each column and kept as long as its values. */
export function* knownIn(values: Float64Array): Task<Bitset> {
  const there = kept.get(values);
  if (there) return there;
  const known = new Uint32Array(wordsFor(values.length));
  yield* inStretches(values.length, (from, to) => {
    for (let i = from; i < to; i++) if (values[i] === values[i]) known[i >>> 5] |= 1 << (i & 31);
  });
  kept.set(values, known);
  return known;
}

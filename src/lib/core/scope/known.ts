import { wordsFor, type Bitset } from '../table/bitset';

const kept = new WeakMap<Float64Array, Bitset>();

/** Records that have a value. Found once for each column and kept as long as its values. */
export function knownIn(values: Float64Array): Bitset {
  let known = kept.get(values);
  if (known) return known;
  known = new Uint32Array(wordsFor(values.length));
  for (let i = 0; i < values.length; i++)
    if (values[i] === values[i]) known[i >>> 5] |= 1 << (i & 31);
  kept.set(values, known);
  return known;
}

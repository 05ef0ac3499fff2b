import { STRIDE, type Steps } from '../steps/steps';

/** About so many values are sorted between two pauses. */
const BUCKET = 1 << 15;

/**
 * The values that are there over a selection, in rising order, with pauses: values go into buckets
 * between splitters of a sample (Frazer and McKellar 1970, samplesort), and each bucket is sorted.
 * @param records the selection, as record numbers
 */
export function* sortedValues(values: Float64Array, records: Int32Array): Steps<Float64Array> {
  const there = new Float64Array(records.length);
  let n = 0;
  for (let k = 0; k < records.length; k++) {
    const v = values[records[k]];
    if (v === v) there[n++] = v;
    if (k % STRIDE === 0) yield undefined;
  }
  const present = there.subarray(0, n);
  if (n <= 2 * BUCKET) return present.sort();
  const splitters = splittersOf(present);
  const bucketOf = new Uint8Array(n);
  const starts = new Int32Array(splitters.length + 2);
  for (let k = 0; k < n; k++) {
    const bucket = searched(splitters, present[k]);
    bucketOf[k] = bucket;
    starts[bucket + 1]++;
    if (k % STRIDE === 0) yield undefined;
  }
  for (let b = 0; b < splitters.length + 1; b++) starts[b + 1] += starts[b];
  const out = new Float64Array(n);
  const at = starts.slice();
  for (let k = 0; k < n; k++) {
    out[at[bucketOf[k]]++] = present[k];
    if (k % STRIDE === 0) yield undefined;
  }
  for (let b = 0; b <= splitters.length; b++) {
    out.subarray(starts[b], starts[b + 1]).sort();
    yield b / splitters.length;
  }
  return out;
}

/** Up to 255 values of an even sample that part it evenly; equal ones fall together. */
function splittersOf(values: Float64Array): Float64Array {
  const buckets = Math.min(256, Math.ceil(values.length / BUCKET));
  const size = Math.min(values.length, buckets * 32);
  const stride = values.length / size;
  const sample = Float64Array.from(
    { length: size },
    (_, k) => values[Math.floor(k * stride)],
  ).sort();
  const chosen = new Set<number>();
  for (let b = 1; b < buckets; b++) chosen.add(sample[Math.floor((b * size) / buckets)]);
  return Float64Array.from(chosen);
}

/** How many splitters are at or under a value. */
function searched(splitters: Float64Array, v: number): number {
  let low = 0;
  let high = splitters.length;
  while (low < high) {
    const mid = (low + high) >>> 1;
    if (splitters[mid] <= v) low = mid + 1;
    else high = mid;
  }
  return low;
}

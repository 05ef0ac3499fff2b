import { inStretches, type Steps } from './steps';

/** An array with one value throughout. */
export function* filled<T extends Float64Array | Int32Array>(array: T, value: number): Steps<T> {
  yield* inStretches(array.length, (from, to) => array.fill(value, from, to));
  return array;
}

/**
 * A number for each place, computed one after the other. `Float64Array.from` and `map` do the same at
 * one go, and slower.
 *
 * @example
 * const means = yield* numbersOf(size, (g) => sums[g] / counts[g]);
 */
export function* numbersOf(
  length: number,
  numberAt: (place: number) => number,
): Steps<Float64Array<ArrayBuffer>> {
  const numbers = new Float64Array(length);
  yield* inStretches(length, (from, to) => {
    for (let k = from; k < to; k++) numbers[k] = numberAt(k);
  });
  return numbers;
}

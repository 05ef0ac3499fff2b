import { inStretches, type Task } from './task';

/** An array with one value throughout. */
export function* filled<T extends Float64Array | Int32Array>(array: T, value: number): Task<T> {
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
): Task<Float64Array<ArrayBuffer>> {
  const numbers = new Float64Array(length);
  yield* inStretches(length, (from, to) => {
    for (let k = from; k < to; k++) numbers[k] = numberAt(k);
  });
  return numbers;
}

/** What a table has at each of some places: `table[places[0]]`, `table[places[1]]`, … */
export function* lookedUp(table: Int32Array, places: Int32Array): Task<Int32Array<ArrayBuffer>> {
  const found = new Int32Array(places.length);
  yield* inStretches(places.length, (from, to) => {
    for (let k = from; k < to; k++) found[k] = table[places[k]];
  });
  return found;
}

/**
 * How many each group has, told one place on, becomes where each group begins; the last is where all end.
 *
 * @example
 * const start = new Int32Array(groups + 1);
 * for (const g of groupOf) start[g + 1]++;
 * yield* addedUp(start);
 */
export function* addedUp(start: Int32Array): Task<void> {
  yield* inStretches(start.length - 1, (from, to) => {
    for (let g = from; g < to; g++) start[g + 1] += start[g];
  });
}

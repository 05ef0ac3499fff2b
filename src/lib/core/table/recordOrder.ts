import { finish, inStretches, STRIDE, type Task } from '../task/task';
import { collect, count, has, type Bitset } from './bitset';

/** The records of a list in the order read, with pauses. A loop: `Int32Array.from` takes thirty times as long. */
export function* orderReadInSteps(length: number): Task<Int32Array<ArrayBuffer>> {
  const order = new Int32Array(length);
  yield* inStretches(length, (from, to) => {
    for (let i = from; i < to; i++) order[i] = i;
  });
  return order;
}

/** The same at one go. */
export const orderRead = (length: number): Int32Array<ArrayBuffer> =>
  finish(orderReadInSteps(length));

/** The records of a selection in the order read, with pauses. */
export function* selectedInSteps(selection: Bitset): Task<Int32Array> {
  const records = new Int32Array(count(selection));
  let n = 0;
  yield* inStretches(
    selection.length,
    (from, to) => {
      n = collect(selection, records, n, from, to);
    },
    (2 * STRIDE) >>> 5,
  );
  return records;
}

/** The records of a selection, in an order of all records, with pauses. */
export function* putInOrder(order: Int32Array, selection: Bitset): Task<Int32Array> {
  const length = count(selection);
  if (length === order.length) return order;
  const kept = new Int32Array(length);
  let n = 0;
  yield* inStretches(order.length, (from, to) => {
    let at = n;
    for (let k = from; k < to; k++) {
      const i = order[k];
      if (has(selection, i)) kept[at++] = i;
    }
    n = at;
  });
  return kept.subarray(0, n);
}

/** The same at one go. */
export const inOrder = (order: Int32Array, selection: Bitset): Int32Array =>
  finish(putInOrder(order, selection));

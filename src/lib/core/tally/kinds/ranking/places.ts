import { inStretches, type Task } from '../../../task/task';

/** How equal figures share places (calculations, section 8). */
export const TIES = ['gap', 'noGap', 'order', 'mean'] as const;
export type Ties = (typeof TIES)[number];

export const TIES_WORDS: Record<Ties, string> = {
  gap: 'equal ones share a place, with a gap after (1 2 2 4)',
  noGap: 'equal ones share a place, without a gap (1 2 2 3)',
  order: 'equal ones in their current order (1 2 3 4)',
  mean: 'equal ones share the mean of their places (1 2.5 2.5 4)',
};

/**
 * Places of figures already in order.
 * @param order which figure comes first, second, ...; those without a value are left out of it
 * @returns one place for each entry of `order`
 */
export function* placesOf(
  values: ArrayLike<number>,
  order: ArrayLike<number>,
  ties: Ties,
): Task<Float64Array> {
  const n = order.length;
  const places = new Float64Array(n);
  // The first of the equal ones met last, and how many different ones were met.
  let first = 0;
  let distinct = 0;
  yield* inStretches(n, (from, to) => {
    for (let k = from; k < to; k++) {
      if (k === 0 || values[order[k]] !== values[order[k - 1]]) {
        if (ties === 'mean') places.fill((first + k + 1) / 2, first, k);
        first = k;
        distinct++;
      }
      if (ties !== 'mean')
        places[k] = ties === 'gap' ? first + 1 : ties === 'noGap' ? distinct : k + 1;
    }
  });
  return ties === 'mean' ? places.fill((first + n + 1) / 2, first) : places;
}

/**
 * How many of the first places are within the top k: all whose figure is at least the k-th one's,
 * so that a tie at the edge is kept.
 */
export function withinTop(values: ArrayLike<number>, order: ArrayLike<number>, k: number): number {
  if (order.length <= k) return order.length;
  if (k === 0) return 0;
  const edge = values[order[k - 1]];
  let n = k;
  while (n < order.length && values[order[n]] === edge) n++;
  return n;
}

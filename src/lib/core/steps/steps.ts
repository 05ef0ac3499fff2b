/**
 * Long work as a generator that pauses now and then. Each pause may carry the share done so far
 * (0..1). Whoever drives it decides what a pause means: the engine looks for newer requests,
 * the command line just goes on.
 *
 * @example
 * const table = finish(readDelimited(bytes, recipe)); // to the end, without pausing
 */
export type Steps<T> = Generator<number | undefined, T, void>;

/** Runs the work to its end in one go. */
export function finish<T>(steps: Steps<T>): T {
  for (;;) {
    const next = steps.next();
    if (next.done) return next.value;
  }
}

/**
 * Steps that are a part of longer work: the shares they tell lie from `from` to `to` of the whole.
 *
 * @example
 * for (const [k, column] of columns.entries())
 *   yield* partOf(spread(column), k / columns.length, (k + 1) / columns.length);
 */
export function* partOf<T>(steps: Steps<T>, from: number, to: number): Steps<T> {
  for (;;) {
    const next = steps.next();
    if (next.done) return next.value;
    yield next.value === undefined ? undefined : from + next.value * (to - from);
  }
}

/** How many records a loop handles between two pauses: about a millisecond of work. */
export const STRIDE = 1 << 16;

/**
 * A loop over many records in stretches, with a pause after each. The work of a stretch is a plain
 * function, which runs faster than the body of a generator.
 *
 * @example
 * yield* inStretches(values.length, (from, to) => {
 *   for (let i = from; i < to; i++) counts[codes[i]]++;
 * });
 * @param stride records of a stretch: fewer where each costs more
 */
export function* inStretches(
  length: number,
  work: (from: number, to: number) => void,
  stride = 2 * STRIDE,
): Steps<void> {
  for (let from = 0; from < length; from += stride) {
    work(from, Math.min(length, from + stride));
    yield undefined;
  }
}

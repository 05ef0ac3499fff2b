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

/** How many records a loop handles between two pauses: about a millisecond of work. */
export const STRIDE = 1 << 16;

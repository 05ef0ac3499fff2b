/**
 * Long work as a generator that pauses now and then. Each pause may carry the share done so far
 * (0..1). Whoever drives it decides what a pause means: the engine looks for newer requests,
 * the command line just goes on.
 *
 * @example
 * const table = finish(readDelimited(bytes, recipe)); // to the end, without pausing
 */
export type Task<T> = Generator<number | undefined, T, void>;

/** Runs the work to its end in one go. */
export function finish<T>(steps: Task<T>): T {
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
export function* partOf<T>(steps: Task<T>, from: number, to: number): Task<T> {
  for (;;) {
    const next = steps.next();
    if (next.done) return next.value;
    yield next.value === undefined ? undefined : from + next.value * (to - from);
  }
}

/** How many records a loop handles between two pauses: about a millisecond of work. */
export const STRIDE = 1 << 16;

/** Stretches begin this much shorter: code met for the first time runs ten times as long. */
const FIRST = 1 / 32;

/** Taken once: in some engines the name leads through a getter each time. */
const clock = performance;

/** What a stretch is meant to take at the most, in milliseconds. */
const LONG = 2.5;

/**
 * A loop over many records in stretches, with a pause after each. The work of a stretch is a plain
 * function, which runs faster than the body of a generator. The first stretches are short, each
 * up to twice the one before as long as none takes long.
 *
 * @example
 * yield* inStretches(values.length, (from, to) => {
 *   for (let i = from; i < to; i++) counts[codes[i]]++;
 * });
 * @param stride records of a stretch: fewer where each costs more
 * @param tells whether pauses tell the share that is done
 */
export function* inStretches(
  length: number,
  work: (from: number, to: number) => void,
  stride = STRIDE,
  tells = false,
): Task<void> {
  let size = Math.max(1, Math.floor(stride * FIRST));
  for (let from = 0; from < length;) {
    const to = Math.min(length, from + size);
    const begun = clock.now();
    work(from, to);
    const took = clock.now() - begun;
    yield tells ? to / length : undefined;
    from = to;
    // As much as the time is enough for, at the rate of this one.
    const enough = (size * LONG) / took;
    size = Math.max(1, Math.floor(Math.min(stride, 2 * size, enough)));
  }
}

/**
 * For loops of uneven turns: whether a pause is due, the first ones sooner, and as soon as the time
 * that a stretch may take is likely used up.
 *
 * @example
 * const due = pausing();
 * for (let k = 0; k < n; k++) {
 *   done += turn(k);
 *   if (due(done)) yield undefined;
 * }
 * @param stride how much lies between two pauses, in what the loop counts its work by
 */
export function pausing(stride = STRIDE): (done: number) => boolean {
  let size = stride * FIRST;
  let next = size;
  // Counted from the first turn after a pause: how long the pause was is not the loop's doing.
  let begun: number | null = clock.now();
  return (done) => {
    begun ??= clock.now();
    if (done < next) return false;
    const enough = (size * LONG) / (clock.now() - begun);
    size = Math.min(stride, 2 * size, enough);
    next = done + size;
    begun = null;
    return true;
  };
}

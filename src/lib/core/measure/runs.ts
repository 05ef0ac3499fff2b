import { inStretches, type Task } from '../task/task';

/**
 * Runs of equal values among ordered ones, counted in one pass that may be made in stretches: how many
 * different values there are, and which is the commonest.
 *
 * @example
 * const runs = runsOf(Float64Array.of(1, 2, 2, 5, 5));
 * runs.distinct // 3
 * runs.value // 2: the smallest of several
 */
export class Runs {
  /** Different values. */
  distinct = 0;
  /** The commonest value, the smallest of several; NaN without any. */
  value = NaN;
  /** How often it stands. */
  times = 0;
  /** How many values stand as often. */
  ties = 0;
  /** Where the run begins that is open, and its value. */
  #start = 0;
  #open = NaN;

  /** Takes in ordered[from..to-1], which follow those before. */
  add(ordered: Float64Array, from: number, to: number): void {
    let { distinct, value, times, ties } = this;
    let start = this.#start;
    let open = this.#open;
    for (let k = from; k < to; k++) {
      const v = ordered[k];
      if (v !== open) {
        open = v;
        start = k;
        distinct++;
      }
      const long = k - start + 1;
      if (long > times) {
        value = v;
        times = long;
        ties = 1;
      } else if (long === times) ties++;
    }
    this.distinct = distinct;
    this.value = value;
    this.times = times;
    this.ties = ties;
    this.#start = start;
    this.#open = open;
  }
}

/** The runs of ordered values at one go. */
export function runsOf(ordered: Float64Array): Runs {
  const runs = new Runs();
  runs.add(ordered, 0, ordered.length);
  return runs;
}

/** The same of very many values, with pauses. */
export function* runsInParts(ordered: Float64Array): Task<Runs> {
  const runs = new Runs();
  yield* inStretches(ordered.length, (from, to) => runs.add(ordered, from, to));
  return runs;
}

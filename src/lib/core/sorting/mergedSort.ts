import { inStretches, pausing, type Task } from '../task/task';

/** Items that are sorted at one go: even where a comparison is dear, a millisecond or so. */
const RUN = 256;
/** Comparisons between two pauses. */
const COMPARED = 8192;

/**
 * Items in the order of a comparison, equal ones as they stood, with pauses: short runs are sorted and
 * merged two by two (Knuth, The Art of Computer Programming 3, 5.2.4). For comparisons that no number
 * stands for, such as those of texts.
 */
export function* mergedSort<T>(items: readonly T[], compare: (a: T, b: T) => number): Task<T[]> {
  let from = [...items];
  yield* inStretches(
    Math.ceil(from.length / RUN),
    (first, end) => {
      for (let run = first; run < end; run++) {
        const sorted = from.slice(run * RUN, (run + 1) * RUN).sort(compare);
        for (let k = 0; k < sorted.length; k++) from[run * RUN + k] = sorted[k];
      }
    },
    8,
  );
  let to = new Array<T>(from.length);
  const due = pausing(COMPARED);
  let compared = 0;
  for (let width = RUN; width < from.length; width *= 2) {
    for (let start = 0; start < from.length; start += 2 * width) {
      const middle = Math.min(start + width, from.length);
      const end = Math.min(start + 2 * width, from.length);
      let a = start;
      let b = middle;
      for (let k = start; k < end; k++) {
        // Of equal ones the first goes first.
        to[k] = b >= end || (a < middle && compare(from[a], from[b]) <= 0) ? from[a++] : from[b++];
        if (due(++compared)) yield undefined;
      }
    }
    [from, to] = [to, from];
  }
  return from;
}

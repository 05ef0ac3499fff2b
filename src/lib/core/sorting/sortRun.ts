/** Runs of no more than this are sorted by insertion. */
export const INSERTED = 40;

/** Sorts a run of numbers (no NaN) in place; −0 comes before 0, as in `Float64Array.sort`. */
export function sortRun(values: Float64Array, from: number, to: number): void {
  if (to - from > INSERTED) values.subarray(from, to).sort();
  else if (to - from > 1) insertion(values, from, to);
}

/** Sorts a run in which no number lies far from its place. */
export function insertion(values: Float64Array, from: number, to: number): void {
  for (let k = from + 1; k < to; k++) {
    const v = values[k];
    let at = k;
    while (at > from && (values[at - 1] > v || (v === 0 && values[at - 1] === 0 && 1 / v < 0))) {
      values[at] = values[at - 1];
      at--;
    }
    values[at] = v;
  }
}

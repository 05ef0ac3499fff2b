/** Runs of no more than this are sorted by insertion. */
const INSERTED = 40;

/** Sorts a run of numbers (no NaN) in place; −0 comes before 0, as in `Float64Array.sort`. */
export function sortRun(values: Float64Array, from: number, to: number): void {
  if (to - from > INSERTED) values.subarray(from, to).sort();
  else if (to - from > 1) insertion(values, from, to);
}

/** Sorts a run in which no number lies far from its place. */
export function insertion(values: Float64Array, from: number, to: number): void {
  for (let k = from + 1; k < to; k++) {
    const v = values[k];
    if (v === 0) {
      insertZero(values, from, k);
      continue;
    }
    let at = k - 1;
    while (at >= from && values[at] > v) {
      values[at + 1] = values[at];
      at--;
    }
    values[at + 1] = v;
  }
}

/** The same for a zero, by itself so that the loop of all others stays short: −0 goes before 0. */
function insertZero(values: Float64Array, from: number, k: number): void {
  const zero = values[k];
  const negative = 1 / zero < 0;
  let at = k - 1;
  while (at >= from && (values[at] > 0 || (negative && values[at] === 0))) {
    values[at + 1] = values[at];
    at--;
  }
  values[at + 1] = zero;
}

import { inStretches, pausing, type Task } from '../task/task';

/** Decimals that are looked for: thousandths are the finest that lists commonly hold. */
const MOST_DECIMALS = 3;
/** Steps of a grid that are still counted: 8 MB of counts. */
const MOST_STEPS = 1 << 21;
const SAMPLE = 256;

/** Numbers to be sorted: values of a selection, or all there are. NaN: none. */
export interface Source {
  readonly values: Float64Array;
  /** The selection, as record numbers; null: every value. */
  readonly records: Int32Array | null;
}

/** How many numbers a source holds, the lowest and the highest. */
export interface Range {
  readonly n: number;
  readonly lo: number;
  readonly hi: number;
}

/** Whole multiples of 1/scale, from `lo` (in such steps) up. */
interface Grid {
  readonly scale: number;
  readonly lo: number;
  readonly size: number;
}

/**
 * Numbers in rising order by counting (Knuth, The Art of Computer Programming 3, 5.2, algorithm D),
 * where all of them lie on one decimal grid with few enough steps: amounts in pence, minutes, days.
 * Null where they do not.
 *
 * A value counts as on the grid only where the double of its step is the very same number, so that
 * no digit can change; a −0 is on no grid.
 */
export function* countedSort(source: Source, range: Range): Task<Float64Array | null> {
  const grid = gridOf(source, range);
  if (!grid) return null;
  const { scale, lo, size } = grid;
  const counts = new Int32Array(size);
  let lies = true;
  yield* inStretches(lengthOf(source), (from, to) => {
    lies &&= count(source, grid, counts, from, to);
  });
  if (!lies) return null;
  const out = new Float64Array(range.n);
  let at = 0;
  const due = pausing();
  for (let step = 0; step < size; step++) {
    const value = (step + lo) / scale;
    for (let times = counts[step]; times > 0; times--) out[at++] = value;
    if (due(at + step)) yield undefined;
  }
  return out;
}

/** How many places a source has, those of no number too. */
export const lengthOf = ({ values, records }: Source): number => (records ?? values).length;

/** The coarsest grid that a sample lies on, if the range of all has few enough steps of it. */
function gridOf(source: Source, { n, lo, hi }: Range): Grid | null {
  const { values, records } = source;
  const length = lengthOf(source);
  const stride = Math.max(1, Math.floor(length / SAMPLE));
  let scale = 1;
  for (let k = 0; k < length; k += stride) {
    const v = values[records === null ? k : records[k]];
    while (v === v && Math.round(v * scale) / scale !== v) {
      scale *= 10;
      if (scale > 10 ** MOST_DECIMALS) return null;
    }
  }
  const first = Math.round(lo * scale);
  const size = Math.round(hi * scale) - first + 1;
  // Sparse values are sorted sooner than so many steps are walked.
  return size <= MOST_STEPS && size <= 8 * n ? { scale, lo: first, size } : null;
}

/** Counts a stretch; false at a value off the grid. */
function count(
  { values, records }: Source,
  { scale, lo }: Grid,
  counts: Int32Array,
  start: number,
  end: number,
): boolean {
  for (let k = start; k < end; k++) {
    const v = values[records === null ? k : records[k]];
    if (v !== v) continue;
    const step = Math.round(v * scale);
    if (step / scale !== v || (v === 0 && 1 / v < 0)) return false;
    counts[step - lo]++;
  }
  return true;
}

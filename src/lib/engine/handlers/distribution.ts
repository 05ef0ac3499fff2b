import { asChoice, choicesOf } from '../../core/table/lookAlikes';
import { isText, type Column, type ScalarColumn, type TextColumn } from '../../core/table/column';
import { showScalar } from '../../core/table/cell';
import { select } from '../../core/measure/quantile';
import { inStretches, type Task } from '../../core/task/task';
import type { Distribution } from '../replies/column';

const SAMPLE = 4096;

/**
 * How a column's values fall over a selection: bins for numbers and dates, the commonest values
 * for text. The outermost bins reach from the 1st to the 99th percentile (of an even sample), so
 * that one absurd value does not flatten the rest; what lies outside is counted apart.
 * @param apart texts that look the same are drawn apart: bars without words need no look at them
 * @param sorted the values of the selection in rising order, where they are at hand
 */
export function* distributionOf(
  column: Column,
  records: Int32Array,
  bins: number,
  { apart = false, sorted }: { readonly apart?: boolean; readonly sorted?: Float64Array } = {},
): Task<Distribution> {
  if (isText(column)) return yield* commonest(column, records, bins, apart);
  if (column.type === 'yesno') return yield* yesNo(column, records);
  return yield* binned(column, records, bins, sorted);
}

function* binned(
  column: ScalarColumn,
  records: Int32Array,
  bins: number,
  sorted: Float64Array | undefined,
): Task<Distribution> {
  const range = usualRange(column.values, records);
  if (!range) return { kind: 'none' };
  const step = roundStep((range.hi - range.lo) / bins, column);
  const lo = Math.floor(range.lo / step) * step;
  const n = Math.max(1, Math.min(bins * 2, Math.floor((range.hi - lo) / step) + 1));
  // The first place counts what lies under the bins, the last what lies over.
  const counts = new Int32Array(n + 2);
  const { values } = column;
  const scale = 1 / step;
  const binOf = (v: number): number =>
    Math.max(0, Math.min(n + 1, Math.floor((v - lo) * scale) + 1));
  if (sorted) countSorted(sorted, binOf, counts);
  else
    yield* inStretches(records.length, (from, to) => {
      for (let k = from; k < to; k++) {
        const v = values[records[k]];
        if (v === v) counts[binOf(v)]++;
      }
    });
  const edges = Array.from({ length: n + 1 }, (_, k) => Number((lo + k * step).toPrecision(12)));
  return {
    kind: 'bins',
    edges,
    labels: edges.map((e) => showScalar(column, e)),
    counts: Array.from(counts.subarray(1, n + 1)),
    under: counts[0],
    over: counts[n + 1],
  };
}

/** Counts ordered values by a bin that never falls: only where one bin ends is looked for. */
function countSorted(sorted: Float64Array, binOf: (v: number) => number, counts: Int32Array): void {
  for (let from = 0; from < sorted.length;) {
    const bin = binOf(sorted[from]);
    let low = from;
    let high = sorted.length;
    while (high - low > 1) {
      const middle = (low + high) >> 1;
      if (binOf(sorted[middle]) > bin) high = middle;
      else low = middle;
    }
    counts[bin] = high - from;
    from = high;
  }
}

/** 1st to 99th percentile of an even sample; null without values. */
function usualRange(values: Float64Array, records: Int32Array): { lo: number; hi: number } | null {
  const sample: number[] = [];
  const stride = Math.max(1, Math.floor(records.length / SAMPLE));
  for (let k = 0; k < records.length; k += stride) {
    const v = values[records[k]];
    if (v === v) sample.push(v);
  }
  if (sample.length === 0)
    for (const i of records) if (values[i] === values[i]) sample.push(values[i]);
  if (sample.length === 0) return null;
  const taken = Float64Array.from(sample);
  const at = (p: number): number => {
    const k = Math.floor((taken.length - 1) * p);
    select(taken, k, 0, taken.length - 1);
    return taken[k];
  };
  return { lo: at(0.01), hi: at(0.99) };
}

/** A step of 1, 2 or 5 times a power of ten; whole days for dates. */
function roundStep(raw: number, column: ScalarColumn): number {
  const least = column.type === 'number' ? 10 ** -column.decimals : 1;
  if (!(raw > least)) return least;
  const power = 10 ** Math.floor(Math.log10(raw));
  const lead = raw / power;
  const step = (lead <= 1 ? 1 : lead <= 2 ? 2 : lead <= 5 ? 5 : 10) * power;
  return column.type === 'number' ? step : Math.max(1, Math.ceil(step));
}

function* yesNo({ values }: ScalarColumn, records: Int32Array): Task<Distribution> {
  let yes = 0;
  let no = 0;
  yield* inStretches(records.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const v = values[records[k]];
      if (v === 1) yes++;
      else if (v === 0) no++;
    }
  });
  return {
    kind: 'values',
    items: [asChoice('yes', yes), asChoice('no', no)],
    others: 0,
  };
}

/** Counts by dictionary code over a selection. */
export function* countTexts(column: TextColumn, records: Int32Array): Task<Int32Array> {
  const counts = new Int32Array(column.dictionary.length);
  const { codes } = column;
  yield* inStretches(records.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const code = codes[records[k]];
      if (code >= 0) counts[code]++;
    }
  });
  return counts;
}

function* commonest(
  column: TextColumn,
  records: Int32Array,
  most: number,
  apart: boolean,
): Task<Distribution> {
  const counts = yield* countTexts(column, records);
  const { choices, more } = yield* choicesOf(column, counts, { most, apart });
  return { kind: 'values', items: choices, others: more };
}

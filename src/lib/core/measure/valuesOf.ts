import { isText, type Column } from '../table/column';
import { textRanks } from '../table/collate';

/** A column as numbers that measures can work on. */
export interface ValueView {
  readonly values: Float64Array;
  /** For text: the dictionary code behind a number of this view. */
  readonly codeOf: ((value: number) => number) | null;
}

const views = new WeakMap<Column, ValueView>();

/**
 * Scalars as they are; text as places in language order, so that "smallest" means first in order.
 * Kept as long as the column itself.
 */
export function valuesOf(column: Column): ValueView {
  if (!isText(column)) return { values: column.values, codeOf: null };
  let view = views.get(column);
  if (!view) {
    const ranks = textRanks(column.dictionary);
    const codes = new Int32Array(ranks.length);
    ranks.forEach((rank, code) => (codes[rank] = code));
    const values = Float64Array.from(column.codes, (code) => (code < 0 ? NaN : ranks[code]));
    view = { values, codeOf: (value) => codes[value] };
    views.set(column, view);
  }
  return view;
}

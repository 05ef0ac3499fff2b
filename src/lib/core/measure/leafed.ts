import type { Task } from '../task/task';
import type { Table } from '../table/table';
import type { Grouping } from './grouping';

/** Records in leaves, and what else measures look at. */
export interface Leafed {
  readonly table: Table;
  /** The selection, as rising record numbers. */
  readonly records: Int32Array;
  /** The same in the current order; `first`, `last` and ties at the highest look at it. */
  readonly ordered: Int32Array;
  /** Leaf of each record of the list; only those of the selection are looked at. */
  readonly leafOf: Int32Array;
  readonly leaves: number;
  /** Records of the selection in each leaf, where they are counted already. */
  readonly counts?: Float64Array;
}

/**
 * Figures of one measure by group; NaN: none. Measures of text hold dictionary codes. Steps where
 * there is much to do for each grouping.
 */
export type FiguresOf = (grouping: Grouping) => Float64Array | Task<Float64Array>;

import type { Resolved } from '../core/ask/resolve';
import type { Bench } from '../core/bench/document';
import type { Table } from '../core/table/table';

/** A bench that was resolved: what its tallies and its ledger are computed and laid out from. */
export interface ResolvedBench {
  readonly token: number;
  readonly doc: Bench;
  readonly resolved: Resolved;
  readonly table: Table;
  readonly counted: Int32Array;
  readonly listName: string;
}

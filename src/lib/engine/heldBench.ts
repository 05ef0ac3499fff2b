import type { Stand } from '../core/ask/stand';
import type { Bench } from '../core/bench/document';
import type { Table } from '../core/table/table';

/** A bench that was stood: what its tallies and its ledger are computed and laid out from. */
export interface HeldBench {
  readonly token: number;
  readonly doc: Bench;
  readonly stand: Stand;
  readonly table: Table;
  readonly counted: Int32Array;
  readonly listName: string;
}

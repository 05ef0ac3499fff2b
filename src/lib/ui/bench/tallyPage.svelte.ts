import type { RowView } from '../../core/tally/rowOrder';
import type { Answered, ReplyOf, Row } from '../../engine/protocol';

/** Rows of a table that are at hand. */
export interface RowsAtHand {
  readonly length: number;
  readonly from: number;
  readonly rows: readonly Row[];
}

/** What the page shows of a tally that is no ledger: all of one stand, so that nothing is mixed. */
export interface TallyPage {
  readonly id: string;
  readonly token: number;
  readonly answered: Answered;
  readonly tables: ReadonlyMap<string, RowsAtHand>;
  readonly shape: ReplyOf<'shape'>;
}

/** Rows that come with a tally at once; longer tables fetch others as they are looked at. */
export const FIRST_ROWS = 400;

/** A table's order for the eye; it is no part of the tally and is not kept. */
export type EyeSort = RowView['sort'];

import type { KeptBands } from '../../core/arrange/bands';
import type { ColumnType } from '../../core/table/column';
import type { Bench } from '../../core/bench/document';
import type { MadePlace } from '../../core/bench/madeEdits';
import type { ListOrigin } from '../../core/bench/origin';
import type { Place } from '../../engine/protocol';

/** What the server says of a bench that is opened. */
export interface BenchFacts {
  readonly id: number;
  readonly name: string;
  readonly listId: number;
  readonly listName: string;
  readonly readAt: string;
  readonly currentReading: number;
  /** Other readings of the list, by the names that comparisons call them. */
  readonly readings: readonly { readonly id: number; readonly name: string }[];
  /** Other lists on the shelf; those that follow this bench cannot feed it. */
  readonly lists: readonly {
    readonly id: number;
    readonly name: string;
    readonly follows: boolean;
    /** Its first bench; null where it has none any more. */
    readonly bench: number | null;
    /** Its current reading, the day of it, and whether that is after the bench was last saved. */
    readonly reading: number;
    readonly readAt: string;
    readonly readSince: boolean;
    /** Its columns, as that reading has them. */
    readonly columns: readonly {
      readonly name: string;
      readonly type: ColumnType;
      readonly unit: string;
    }[];
  }[];
  /** Band tables that other benches keep, with the names of those. */
  readonly bands: readonly (KeptBands & { readonly list: string; readonly bench: string })[];
  /** Where the list comes from, if from another. */
  readonly origin: ListOrigin | null;
  readonly revision: number;
  readonly doc: Bench;
  /** Where a link opened it as it was at an earlier revision: that, and the newest state. */
  readonly earlier: {
    readonly revision: number;
    readonly savedAt: string;
    readonly newest: Bench;
  } | null;
}

/** What stands in the panel on the right. */
export type Side =
  | { kind: 'behind'; place: Place }
  | { kind: 'column'; column: string }
  | { kind: 'record'; record: number; column: string | null }
  | { kind: 'known' }
  /** A list in the making; a column in the making, `at`: the place of a made one that is changed. */
  | { kind: 'list'; of: 'stack' | 'unstack' | 'rows' }
  | { kind: 'made'; of: MadePlace['of']; at: number | null };

import type { z } from 'zod';
import type { KeptBands } from '../core/arrange/bands';
import type { Bench } from '../core/bench/document';
import type { ComputedSpec, JoinSpec } from '../core/prepare/specs';
import type { Condition } from '../core/selection/condition';
import type { OtherList } from '../core/tally/wish/guess';
import type { Wish } from '../core/tally/wish/wish';
import type { Figure, FigurePlace, ScopeName } from '../core/tally/answer/result';
import type { RowView } from '../core/tally/answer/rowOrder';
import type { Tally } from '../core/tally/spec/specs';
import type { Replies } from './replies';
import type { Values } from '../core/write/dialect';

/** A figure of a tally of the bench; of its whole over another scope where one is named. */
export type Place = FigurePlace & {
  readonly tally: string;
  readonly scope?: ScopeName | undefined;
};

interface On {
  /** The session that is asked of, as the reply to `resolve` named it. */
  readonly token: number;
}
interface OfTally extends On {
  /** Id of a tally of the tray. */
  readonly tally: string;
}
interface OfTable {
  readonly table: string;
  /** The place among the columns of figures of the first that is looked at. */
  readonly across: number;
}
interface Stretch {
  readonly from: number;
  readonly count: number;
}

/** What a page, a script or the server asks of the engine. */
export interface Asks {
  /** Corrects, prepares, narrows and orders the list for a bench; all else is asked of its token. */
  resolve: { readonly doc: Bench };
  /** The ledger's heads, footing and number of lines. */
  ledger: OfTally;
  lines: OfTally & Stretch;
  /** How the values of each column of the ledger fall, from a column on. */
  heads: OfTally & { readonly from: number };
  /** Any tally: what its tables are, without their rows. */
  answer: OfTally;
  /** One table of it, from a column of figures on: of wide tables some columns are looked at. */
  head: OfTally & OfTable;
  /** Rows as they are looked at: sorted for the eye, some folded away. */
  rows: OfTally & OfTable & Stretch & { readonly view: RowView };
  /**
   * What a tally's chart shows besides its figures: how all values fall, or all values in order; of a
   * series its steps from one on.
   */
  shape: OfTally & { readonly from: number };
  /** What a tally came to, in a few letters. */
  fact: OfTally;
  /** What can be asked of this list, and how each kind begins. */
  /** The tallies that a wish may mean, and what of it none of them says. */
  offers: On & {
    readonly typed: string;
    readonly readings: readonly string[];
    readonly others: readonly OtherList[];
    readonly bands: readonly KeptBands[];
  };
  questions: On & {
    readonly wish: Wish;
    readonly readings: readonly string[];
    readonly others: readonly OtherList[];
  };
  /** A tally that is not in the tray, in small. */
  sketch: On & { readonly spec: Tally; readonly narrow?: readonly Condition[] };
  /** Whether a tally's tables foot. */
  footing: OfTally;
  /** Every known total of the bench beside its figure. */
  known: On;
  /** Every figure that stands in the words of the report. */
  cited: On;
  /** Where a figure comes from, as one document. */
  figureRecord: On & { readonly place: Place };
  behind: On & { readonly place: Place };
  behindRecords: On & Stretch & { readonly place: Place };
  check: On & { readonly place: Place; readonly known: number };
  /** The line of a group, by its keys. */
  locate: OfTally & { readonly keys: FigurePlace['row'] };
  locateRecord: OfTally & { readonly record: number };
  /** Record numbers on the lines from..to. */
  recordsOn: OfTally & { readonly from: number; readonly to: number };
  labels: OfTally & { readonly level: number };
  /** What is shown, as text and HTML. */
  copy: OfTally & { readonly values: Values };
  /** Every tally against the same over an older reading, by the name that the bench gives it. */
  moved: On & { readonly with: string; readonly to?: string | undefined };
  /** The records of both readings behind a figure that moved. */
  movedRecords: On & Stretch & { readonly place: Place };
  /** The records of another list behind a figure. */
  elsewhere: On & Stretch & { readonly place: Place };
  /** Tallies as an answer, to be written as a file; as a report with its title, words and notes. */
  asked: On & {
    readonly tallies: readonly string[];
    readonly values: Values;
    readonly report: boolean;
  };
  /** The counted records in the order of the bench (see `recordsOrder`), with their types. */
  countedRecords: On;
  facts: On & { readonly column: string };
  values: On & { readonly column: string; readonly search: string; readonly limit: number };
  /** What a condition would keep of what the rungs before place `at` keep. */
  try: On & {
    readonly condition: Condition;
    readonly at: number;
    /** A step that it is to take the place of. */
    readonly instead?: string;
  };
  recordCells: On & { readonly record: number };
  /** The records whose cell of a column holds the same as that of one. */
  alikeCells: On & { readonly record: number; readonly column: string };
  /** A column in the making, in the place of a computed one where it changes that. */
  /** Columns of another list at hand, and keys by which it could meet this one. */
  other: On & { readonly list: string };
  /** A join in the making, in the place of another where it changes that. */
  match: On & { readonly spec: JoinSpec; readonly at: number | null };
  /** Where the bench uses a column, in words. */
  uses: On & { readonly column: string };
  /** `whole`: what comes out of all records too, and not only the first of them. */
  draft: On & {
    readonly spec: ComputedSpec;
    readonly at: number | null;
    readonly whole: boolean;
  };
}
export type Do = keyof Asks;
export type ArgsOf<K extends Do> = Asks[K];
export type ReplyOf<K extends Do> = z.infer<(typeof Replies)[K]>;

export type Keys = readonly Figure[];
export type {
  Answered,
  Begin,
  Offered,
  Row,
  Sketch,
  TableColumn,
  TableHead,
} from './replies/tables';
export type { Behind, BehindRecord } from './replies/behind';
export type { ColumnFacts, Distribution } from './replies/column';
export type { Counts } from './replies/counts';
export type { Head, LedgerPage, Line } from './replies/ledger';
export type { KnownNow } from './replies/checks';
export type { LineCell } from './replies/cell';
export type { Shape } from './replies/shape';

import { z } from 'zod';
import { Condition } from '../core/selection/condition';
import { Bytes } from '../core/table/bytes';
import { FigureRecord } from '../core/bench/figureRecord';
import { Fault } from '../core/tally/spec/fault';
import { Footing } from '../core/tally/trust/footing';
import { FigureType } from '../core/tally/answer/result';
import { CellStateName } from './cellStates';
import { Line, LedgerPage } from './replies/ledger';
import { Counts } from './replies/counts';
import { Answered, Rows, Sketch, Begin, Offered, TableHead } from './replies/tables';
import { Shape } from './replies/shape';
import { KnownNow, CitedNow } from './replies/checks';
import { ElsewhereRecords } from './replies/elsewhere';
import { Moved, MovedRecords } from './replies/moved';
import { Choice, Distribution, ColumnFacts } from './replies/column';
import { Behind, BehindRecord } from './replies/behind';

/** What each request is answered with. */
export const Replies = {
  resolve: Counts,
  ledger: LedgerPage,
  lines: z.array(Line),
  heads: z.array(Distribution),
  answer: Answered,
  head: TableHead,
  rows: Rows,
  shape: Shape,
  fact: z.strictObject({ text: z.string(), foots: z.boolean().nullable() }),
  offers: z.strictObject({
    tallies: z.array(Offered),
    /** What the wish narrows to, where it says nothing else. */
    narrow: z.array(Condition),
    /** Where nothing was typed: wishes that the list answers. */
    examples: z.array(z.string()),
  }),
  questions: z.array(Begin),
  sketch: Sketch,
  known: z.array(KnownNow),
  cited: z.array(CitedNow),
  figureRecord: FigureRecord,
  footing: Footing,
  behind: Behind,
  behindRecords: z.array(BehindRecord),
  check: z.strictObject({
    difference: z.string(),
    explanations: z.array(
      z.strictObject({
        words: z.string(),
        records: z.array(z.int()),
        remedy: z
          .discriminatedUnion('do', [
            z.strictObject({ do: z.literal('setAside') }),
            z.strictObject({ do: z.literal('putBack') }),
            z.strictObject({ do: z.literal('switchOff'), rung: z.int() }),
          ])
          .optional(),
      }),
    ),
  }),
  locate: z.strictObject({ line: z.int() }),
  locateRecord: z.strictObject({ line: z.int() }),
  recordsOn: z.strictObject({ records: z.array(z.int()) }),
  labels: z.strictObject({ labels: z.array(z.string()), more: z.int() }),
  copy: z.strictObject({ text: z.string(), html: z.string(), rows: z.int(), guarded: z.int() }),
  moved: Moved,
  movedRecords: MovedRecords,
  elsewhere: ElsewhereRecords,
  /** See `fromParts`. */
  asked: z.strictObject({ parts: z.array(Bytes) }),
  /** Arrow streams, one behind the other. */
  countedRecords: z.strictObject({ records: z.int(), parts: z.array(Bytes) }),
  facts: ColumnFacts,
  values: z.strictObject({
    items: z.array(Choice),
    more: z.int(),
    blank: z.int(),
  }),
  try: z.strictObject({
    kept: z.int(),
    removed: z.int(),
    blank: z.int(),
    unread: z.int(),
    words: z.string(),
  }),
  other: z.strictObject({
    records: z.int(),
    columns: z.array(
      z.strictObject({ id: z.string(), name: z.string(), type: FigureType, unit: z.string() }),
    ),
    keys: z.array(
      z.strictObject({
        column: z.string(),
        with: z.string(),
        found: z.number(),
        single: z.boolean(),
      }),
    ),
  }),
  match: z.strictObject({
    fault: Fault.nullable(),
    /** How the keys meet; null where they cannot be looked up. */
    meets: z
      .object({
        records: z.int(),
        matched: z.int(),
        /** Records whose own key is blank. */
        blank: z.int(),
        /** Keys that the other list has not, the commonest first, and how many there are. */
        missing: z.array(z.strictObject({ key: z.string(), records: z.int() })),
        missingKeys: z.int(),
        /** Keys of the other list that nothing here uses. */
        never: z.array(z.string()),
        neverKeys: z.int(),
        /** Keys that stand there more than once. */
        repeated: z.array(z.strictObject({ key: z.string(), records: z.int() })),
        repeatedKeys: z.int(),
      })
      .nullable(),
    /** The first counted records with what they would get. */
    shown: z
      .object({
        heads: z.array(z.strictObject({ name: z.string(), unit: z.string(), right: z.boolean() })),
        rows: z.array(z.strictObject({ record: z.int(), cells: z.array(z.string()) })),
      })
      .nullable(),
  }),
  uses: z.array(z.string()),
  draft: z.strictObject({
    /** What is wrong and where, in characters of the expression; null: nothing. */
    fault: z
      .object({
        start: z.int(),
        end: z.int(),
        message: z.string(),
        remedy: z.string(),
        /** What to write there instead. */
        fix: z.string().nullable(),
      })
      .nullable(),
    /** What it comes to; null where it is at fault. */
    column: z
      .object({
        type: z.string(),
        /** Columns it is made of, and itself as the last. */
        heads: z.array(z.strictObject({ name: z.string(), unit: z.string(), right: z.boolean() })),
        /** How many columns it is made of. */
        of: z.int(),
        /** The first counted records; `none`: why there is no value. */
        rows: z.array(
          z.strictObject({ record: z.int(), cells: z.array(z.string()), none: z.string() }),
        ),
        /** What came out of all records; null where only the first were looked at. */
        all: z
          .object({
            values: z.int(),
            blank: z.int(),
            unread: z.int(),
            none: z.int(),
            lowest: z.string(),
            highest: z.string(),
            /** The end that lies far off all others, by the record's number. */
            far: z.strictObject({ record: z.int(), text: z.string() }).nullable(),
            distinct: z.int().nullable(),
          })
          .nullable(),
      })
      .nullable(),
  }),
  recordCells: z.array(
    z.strictObject({
      column: z.string(),
      name: z.string(),
      text: z.string(),
      state: CellStateName,
      was: z.string(),
    }),
  ),
  alikeCells: z.strictObject({
    /** Numbers from 1, the one that was asked for among them. */
    records: z.array(z.int().min(1)),
    /** Whether there are more than are listed. */
    more: z.boolean(),
  }),
} as const;

import { z } from 'zod';
import { Bench } from '../core/bench/document';
import { ComputedSpec, JoinDraft } from '../core/prepare/specs';
import { Condition } from '../core/selection/condition';
import { FigurePlace, ScopeName } from '../core/tally/answer/result';
import { COLUMN_TYPES } from '../core/table/column';
import { Tally } from '../core/tally/spec/specs';
import { KeptBands } from '../core/arrange/bands';
import { Wish } from '../core/tally/wish/wish';
import { MOST_AT_ONCE } from './gatherRows';
import type { ArgsOf, Do } from './protocol';
import { VALUES } from '../core/write/dialect';

/*
 * Requests are checked where they are answered. The page only sends them, and does without the
 * schemas of every kind of tally.
 */

/** What a request was asked of: the session it names must still be open. */
const on = { token: z.int() };
const ofTally = { ...on, tally: z.string() };
const ofTable = { table: z.string(), across: z.int().min(0) };
/** Lists of the shelf that a tally can be set against, with their columns. */
const OtherLists = z
  .array(
    z.strictObject({
      name: z.string(),
      columns: z.array(z.strictObject({ name: z.string(), type: z.enum(COLUMN_TYPES) })),
    }),
  )
  .max(10_000);
const stretch = { from: z.int().min(0), count: z.int().min(0) };

/** A figure of a tally of the bench; of its whole over another scope where one is named. */
const Place = FigurePlace.extend({ tally: z.string(), scope: ScopeName.optional() });

const RowViewSchema = z.strictObject({
  sort: z.strictObject({ column: z.string(), descending: z.boolean() }).optional(),
  down: z.int().min(0),
  turned: z.array(z.string()).max(20_000),
});

/** What each request carries. */
export const Requests: { readonly [K in Do]: z.ZodType<ArgsOf<K>> } = {
  resolve: z.strictObject({ doc: Bench }),
  ledger: z.strictObject(ofTally),
  lines: z.strictObject({ ...ofTally, ...stretch, count: z.int().min(0).max(2000) }),
  heads: z.strictObject({ ...ofTally, from: z.int().min(0) }),
  answer: z.strictObject(ofTally),
  head: z.strictObject({ ...ofTally, ...ofTable }),
  rows: z.strictObject({
    ...ofTally,
    ...ofTable,
    ...stretch,
    count: z.int().min(0).max(MOST_AT_ONCE),
    view: RowViewSchema,
  }),
  shape: z.strictObject({ ...ofTally, from: z.int().min(0) }),
  fact: z.strictObject(ofTally),
  offers: z.strictObject({
    ...on,
    typed: z.string().max(1000),
    readings: z.array(z.string()).max(1000),
    others: OtherLists,
    bands: z.array(KeptBands).max(1000),
  }),
  questions: z.strictObject({
    ...on,
    wish: Wish,
    /** Other readings of the list that can be brought. */
    readings: z.array(z.string()).max(1000),
    others: OtherLists,
  }),
  sketch: z.strictObject({
    ...on,
    spec: Tally,
    /** Steps that are taken before. */
    narrow: z.array(Condition).max(50).optional(),
  }),
  footing: z.strictObject(ofTally),
  behind: z.strictObject({ ...on, place: Place }),
  behindRecords: z.strictObject({
    ...on,
    place: Place,
    ...stretch,
    count: z.int().min(0).max(500),
  }),
  known: z.strictObject(on),
  cited: z.strictObject(on),
  figureRecord: z.strictObject({ ...on, place: Place }),
  check: z.strictObject({ ...on, place: Place, known: z.number() }),
  locate: z.strictObject({ ...ofTally, keys: FigurePlace.shape.row }),
  locateRecord: z.strictObject({ ...ofTally, record: z.int().min(0) }),
  recordsOn: z.strictObject({ ...ofTally, from: z.int().min(0), to: z.int().min(0) }),
  labels: z.strictObject({ ...ofTally, level: z.int().min(0) }),
  copy: z.strictObject({ ...ofTally, values: z.enum(VALUES) }),
  moved: z.strictObject({ ...on, with: z.string(), to: z.string().optional() }),
  movedRecords: z.strictObject({
    ...on,
    place: Place,
    ...stretch,
    count: z.int().min(0).max(500),
  }),
  elsewhere: z.strictObject({
    ...on,
    place: Place,
    ...stretch,
    count: z.int().min(0).max(500),
  }),
  asked: z.strictObject({
    ...on,
    tallies: z.array(z.string()),
    values: z.enum(VALUES),
    report: z.boolean(),
  }),
  countedRecords: z.strictObject(on),
  facts: z.strictObject({ ...on, column: z.string() }),
  values: z.strictObject({
    ...on,
    column: z.string(),
    search: z.string(),
    limit: z.int().max(1000),
  }),
  try: z.strictObject({
    ...on,
    condition: Condition,
    at: z.int().min(0),
    /** A step that it is to take the place of. */
    instead: z.string().optional(),
  }),
  recordCells: z.strictObject({ ...on, record: z.int().min(0) }),
  alikeCells: z.strictObject({ ...on, record: z.int().min(0), column: z.string() }),
  other: z.strictObject({ ...on, list: z.string() }),
  match: z.strictObject({ ...on, spec: JoinDraft, at: z.int().min(0).nullable() }),
  uses: z.strictObject({ ...on, column: z.string() }),
  draft: z.strictObject({
    ...on,
    spec: ComputedSpec,
    at: z.int().min(0).nullable(),
    whole: z.boolean(),
  }),
};

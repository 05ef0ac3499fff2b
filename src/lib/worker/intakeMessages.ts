import { z } from 'zod';
import { Doubt } from '../core/read/doubts';
import { Recipe } from '../core/read/recipe';
import {
  AskedOf,
  DATABASE_FORMS,
  FileParts,
  HeadDifference,
  Source,
} from '../core/read/decode/source';

/** From the page to the intake's worker. A file goes beside the message: it cannot be validated as data. */
export const ToIntake = z.discriminatedUnion('kind', [
  /** A file; read by the list's recipe where one is given. */
  z.strictObject({
    kind: z.literal('begin'),
    file: z.instanceof(Blob),
    previous: Recipe.nullable(),
    /** Which of several things in it was chosen before, or is in the list's recipe; left out: found by itself. */
    wanted: Source.optional(),
    /** Bytes that it may unfold to. */
    limit: z.number(),
  }),
  /** A table or a query of a database that the server keeps under a name. */
  z.strictObject({
    kind: z.literal('database'),
    base: z.string(),
    connection: z.string(),
    form: z.enum(DATABASE_FORMS),
    asked: AskedOf,
    previous: Recipe.nullable(),
  }),
  /** Another file of the package, or another sheet of the workbook. */
  z.strictObject({
    kind: z.literal('choose'),
    wanted: Source.pick({
      member: true,
      part: true,
      all: true,
      cuts: true,
      block: true,
      heads: true,
    }),
    previous: Recipe.nullable(),
  }),
  /** Another layout: the columns are inferred anew. */
  z.strictObject({ kind: z.literal('layout'), recipe: Recipe }),
  /** Another recipe for the same cells. `settled`: columns the analyst set by hand. */
  z.strictObject({ kind: z.literal('recipe'), recipe: Recipe, settled: z.array(z.string()) }),
  /** What was read, beside the list that it refreshes. */
  z.strictObject({
    kind: z.literal('compare'),
    base: z.string(),
    reading: z.int(),
    /** The columns that tell a record; empty: records are the same where all columns are. */
    key: z.array(z.string()),
  }),
  z.strictObject({
    kind: z.literal('accept'),
    base: z.string(),
    list: z.int().nullable(),
    /** The list's reading that the records are added to; null: they are all of the list. */
    addTo: z.int().nullable(),
    /** Of records that are added: those that the list has already stay away. */
    leaveOut: z.boolean(),
    name: z.string(),
    fileName: z.string(),
    setAside: z.array(z.int()),
    /** Whether what the file states as its grand total is kept as known totals. */
    stated: z.boolean(),
    /** What was decided about records that look like totals; null: there are none. */
    totals: Recipe.shape.totals.unwrap().nullable(),
  }),
]);
export type ToIntake = z.infer<typeof ToIntake>;

const PreviewCell = z.strictObject({
  text: z.string(),
  state: z.enum(['read', 'blank', 'unread']),
});

/** A file beside its list. */
export const Compared = z.strictObject({
  key: z.array(z.string()),
  /** Columns of the list that may tell a record, each or some together, by their ids. */
  keys: z.array(z.array(z.string())),
  /** Records that the list has already, and those of them with other values than there. */
  already: z.int(),
  differing: z.int(),
  first: z.array(z.strictObject({ record: z.int(), there: z.int(), words: z.string() })),
  /** The months that would lose records if the file took the place of the list; '' where none would. */
  lost: z.string(),
});
export type Compared = z.infer<typeof Compared>;

export const FromIntake = z.discriminatedUnion('kind', [
  /** What the file could be read from: the files of a package, the sheets of a workbook. */
  z.strictObject({
    kind: z.literal('choices'),
    choices: FileParts,
  }),
  /** Several files whose heads differ: nothing is read before it is said what each of them is. */
  z.strictObject({
    kind: z.literal('heads'),
    heads: z.array(HeadDifference).readonly(),
    files: z.array(z.string()).readonly(),
  }),
  /** How the file is read now, and its first records. `file`: all of its columns as they would be read without a list's recipe. */
  z.strictObject({
    kind: z.literal('preview'),
    recipe: Recipe,
    file: Recipe,
    rows: z.array(z.array(PreviewCell)),
  }),
  /** What has come from a database so far. */
  z.strictObject({
    kind: z.literal('coming'),
    /** The reading at the server, by its id. */
    read: z.string(),
    records: z.int(),
    bytes: z.number(),
  }),
  z.strictObject({ kind: z.literal('progress'), share: z.number(), records: z.int() }),
  /** The whole file was read. */
  z.strictObject({
    kind: z.literal('read'),
    recipe: Recipe,
    records: z.int(),
    doubts: z.array(Doubt),
    /** Numbers of the records proposed for setting aside. */
    totals: z.array(z.int().min(1)),
  }),
  Compared.extend({ kind: z.literal('compared') }),
  z.strictObject({ kind: z.literal('fault'), message: z.string() }),
  z.strictObject({ kind: z.literal('sending'), share: z.number() }),
  z.strictObject({
    kind: z.literal('stored'),
    listId: z.int(),
    reading: z.int(),
    bench: z.int().nullable(),
    lost: z.int(),
  }),
  z.strictObject({ kind: z.literal('refused'), message: z.string() }),
]);
export type FromIntake = z.infer<typeof FromIntake>;
export type PreviewCell = z.infer<typeof PreviewCell>;

import { z } from 'zod';
import { Dialect } from '$lib/core/write/dialect';
import { OUT_FORMS } from '$lib/core/write/forms';
import { RECORD_FORMS } from '$lib/core/write/tableFile';
import { Ask } from '$lib/core/ask/ask';
import { Bench } from '$lib/core/bench/document';
import { Origin } from '$lib/core/bench/origin';
import { CODES } from '$lib/core/errors';
import { AskedOf } from '$lib/core/read/decode/source';
import { Doubt } from '$lib/core/read/doubts';
import { Recipe } from '$lib/core/read/recipe';
import { ColumnChange } from '$lib/core/read/redescribe';
import { Fault } from '$lib/core/tally/spec/fault';
import { Connection } from '../databases/connections';

/** Work that would hold up the server, done in a thread of its own. */
export const ThreadTask = z.discriminatedUnion('task', [
  /** Checks uploaded chunks and stores them as a reading, all or nothing. */
  z.object({
    task: z.literal('store'),
    /** The intake that asks for it; sent again, it is stored once. */
    intake: z.string(),
    database: z.string(),
    limitBytes: z.number(),
    chunkFiles: z.array(z.string()),
    listId: z.int().nullable(),
    /** The reading that the records are added to; null: they are all of the list. */
    addTo: z.int().nullable(),
    listName: z.string(),
    fileName: z.string(),
    records: z.int().min(0),
    recipe: Recipe,
    doubts: z.array(Doubt),
    setAside: z.array(z.int().min(1)),
    /** Whether what the file states as its grand total is kept as known totals of the first bench. */
    stated: z.boolean(),
  }),
  /** Reads a file of the demo by its own recipe and stores it. */
  z.object({
    task: z.literal('demo'),
    database: z.string(),
    limitBytes: z.number(),
    file: z.string(),
    listName: z.string(),
    /** Group by these columns, where the file has them. */
    groups: z.array(z.string()),
  }),
  /** Makes a reading of a list its current one and brings the list's benches to it. */
  z.object({
    task: z.literal('move'),
    database: z.string(),
    limitBytes: z.number(),
    listId: z.int(),
    reading: z.int(),
  }),
  /** Makes a reading without one of the files that the current one is put together of. */
  z.object({
    task: z.literal('takeOut'),
    database: z.string(),
    limitBytes: z.number(),
    listId: z.int(),
    reading: z.int(),
    /** The place of the file among its parts, from 0. */
    part: z.int().min(0),
  }),
  /** Makes a reading of the same cells whose columns are told otherwise. */
  z.object({
    task: z.literal('redescribe'),
    database: z.string(),
    limitBytes: z.number(),
    listId: z.int(),
    reading: z.int(),
    changes: z.array(ColumnChange),
  }),
  /** Makes a list of a bench, or makes it anew. */
  z.object({
    task: z.literal('make'),
    database: z.string(),
    limitBytes: z.number(),
    /** The list to make anew; null puts a new one on the shelf. */
    listId: z.int().nullable(),
    name: z.string(),
    origin: Origin,
    /** Readings behind the names of the bench's other lists. */
    others: z.record(z.string(), z.int()),
    /** What it is made of, to be seen again. */
    madeOf: z.string(),
  }),
  /** The ledger of a stored bench: its overview, or delimited text. */
  z.object({
    task: z.literal('ledger'),
    database: z.string(),
    doc: Bench,
    /** Readings behind the names of the bench's other lists. */
    others: z.record(z.string(), z.int()),
    csv: z.boolean(),
    dialect: Dialect,
  }),
  /** The tallies of a stored bench's report, or its counted records, as a file. */
  z.object({
    task: z.literal('file'),
    database: z.string(),
    doc: Bench,
    others: z.record(z.string(), z.int()),
    what: z.discriminatedUnion('of', [
      z.object({ of: z.literal('report'), form: z.enum(OUT_FORMS), dialect: Dialect }),
      z.object({ of: z.literal('records'), form: z.enum(RECORD_FORMS), dialect: Dialect }),
    ]),
  }),
  /** The report of a stored bench. */
  z.object({
    task: z.literal('report'),
    database: z.string(),
    doc: Bench,
    others: z.record(z.string(), z.int()),
    facts: z.object({ list: z.string(), read: z.string(), made: z.string() }),
  }),
  /** The asks that a wish about a stored reading may mean. */
  z.object({
    task: z.literal('wish'),
    database: z.string(),
    reading: z.int(),
    wish: z.string(),
    limitMs: z.number(),
  }),
  /** Answers an ask about a stored reading, within a time and a size. */
  z.object({
    task: z.literal('answer'),
    database: z.string(),
    reading: z.int(),
    ask: Ask,
    /** Readings behind the names of the ask's other lists. */
    others: z.record(z.string(), z.int()),
    as: z.enum(OUT_FORMS),
    dialect: Dialect,
    limitMs: z.number(),
    limitBytes: z.number(),
  }),
  /** Answers an ask about a list that stays in its database. */
  z.object({
    task: z.literal('answerLeft'),
    database: z.string(),
    /** The thread that asks the list's database. */
    script: z.string(),
    connection: Connection,
    /** The name that the connection is kept under. */
    name: z.string(),
    asked: AskedOf,
    ask: Ask,
    others: z.record(z.string(), z.int()),
    as: z.enum(OUT_FORMS),
    dialect: Dialect,
    limitBytes: z.number(),
  }),
]);
export type ThreadTask = z.infer<typeof ThreadTask>;

export const TaskResult = z.union([
  z.object({ ok: z.literal(true), value: z.unknown() }),
  z.object({
    ok: z.literal(false),
    code: z.enum(CODES),
    message: z.string(),
    /** Of an ask that does not fit its list. */
    faults: z.array(Fault).optional(),
  }),
]);
export type TaskResult = z.infer<typeof TaskResult>;

import { z } from 'zod';
import { BenchDocument } from '../core/bench/document';
import { Condition } from '../core/scope/condition';
import { Tally } from '../core/tally/kinds';
import { FigurePlace, TallyResult } from '../core/tally/result';

/*
 * Requests are checked where they are answered. The page only sends them, and does without the
 * schemas of every kind of tally.
 */

/** A figure of the ledger: under a group, or in one of the three lines of the footing. */
export const Place = z.discriminatedUnion('at', [
  z.object({ at: z.literal('group'), path: z.array(z.string()), measure: z.int() }),
  z.object({
    at: z.literal('foot'),
    line: z.enum(['all', 'narrowed', 'counted']),
    measure: z.int(),
  }),
]);
export type Place = z.infer<typeof Place>;

/** What a page, a script or the server asks of the engine. */
export const Request = z.discriminatedUnion('do', [
  /** Reckons a bench; the other requests answer from the bench reckoned last. */
  z.object({ do: z.literal('reckon'), doc: BenchDocument }),
  z.object({ do: z.literal('lines'), from: z.int().min(0), count: z.int().min(0).max(2000) }),
  z.object({ do: z.literal('heads') }),
  z.object({ do: z.literal('facts'), column: z.string() }),
  z.object({
    do: z.literal('values'),
    column: z.string(),
    search: z.string().default(''),
    limit: z.int().max(1000).default(200),
  }),
  /** What a condition would keep of what the rungs before place `at` keep. */
  z.object({ do: z.literal('try'), condition: Condition, at: z.int().min(0) }),
  z.object({ do: z.literal('behind'), place: Place }),
  z.object({
    do: z.literal('behindRecords'),
    place: Place,
    from: z.int().min(0),
    count: z.int().min(0).max(500),
  }),
  z.object({ do: z.literal('check'), place: Place, known: z.number() }),
  z.object({ do: z.literal('locate'), place: Place }),
  z.object({ do: z.literal('locateRecord'), record: z.int().min(0) }),
  /** Record numbers on the lines from..to. */
  z.object({ do: z.literal('recordsOn'), from: z.int().min(0), to: z.int().min(0) }),
  z.object({ do: z.literal('labels'), level: z.int().min(0) }),
  z.object({ do: z.literal('copy'), full: z.boolean() }),
  z.object({ do: z.literal('file'), what: z.enum(['shown', 'records']), full: z.boolean() }),
  /** Any tally over what the bench counts. */
  z.object({ do: z.literal('tally'), tally: Tally }),
  /** What stands behind a figure of such a result. */
  z.object({ do: z.literal('tallyBehind'), result: TallyResult, place: FigurePlace }),
  z.object({ do: z.literal('recordCells'), record: z.int().min(0) }),
]);
export type Request = z.infer<typeof Request>;
export type RequestOf<K extends Request['do']> = Extract<Request, { do: K }>;

import { z } from 'zod';
import { Formats } from '../tally/spec/formats';
import { Tally } from '../tally/spec/specs';
import { questionParts } from './question';
import { VERSION } from './version';

/** What of an answer can be left out. */
export const LEFT_OUT = ['where', 'marks'] as const;

const tallies = z.array(Tally).min(1).max(200);
// Cells are put right where a list is read, and lists are named once.
const { lists: _lists, corrections: _corrections, ...ownParts } = questionParts;

/** Tallies over another list of the same ask, with a preparation and a ladder of its own. */
export const AlsoAsk = z.strictObject({
  /** The list, by the name that `lists` gives it; a result as well. */
  of: z.string().min(1),
  ...ownParts,
  tallies,
});
export type AlsoAsk = z.infer<typeof AlsoAsk>;

/** One document that asks for any number of tallies over a list, and over others beside it. */
export const Ask = z.strictObject({
  /** Left out: the newest. An ask of version 1 or 2 counts records from 0, and is read as it was meant. */
  version: z.literal(VERSION).optional(),
  ...questionParts,
  /**
   * Left out of the answer, for programs that want figures alone: `where`, the records that rows and
   * columns stand on, and `marks`.
   */
  leaveOut: z.array(z.enum(LEFT_OUT)).default([]),
  /** How numbers are shown where they are shown, by column (`fares`) or measure (`fares:mean`). */
  formats: Formats.default({}),
  tallies,
  /** Other lists that are asked of in the same document. */
  also: z.array(AlsoAsk).max(50).default([]),
});
export type Ask = z.infer<typeof Ask>;

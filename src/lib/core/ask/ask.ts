import { z } from 'zod';
import { Tally } from '../tally/specs';
import { questionParts } from './question';

/** What of an answer can be left out. */
export const LEFT_OUT = ['where', 'marks'] as const;

/** One document that asks for any number of tallies over a list: a question and its tallies. */
export const Ask = z.strictObject({
  /** Left out: the newest. An ask of version 1 or 2 counts records from 0, and is read as it was meant. */
  version: z.literal(3).optional(),
  ...questionParts,
  /**
   * Left out of the answer, for programs that want figures alone: `where`, the records that rows and
   * columns stand on, and `marks`.
   */
  leaveOut: z.array(z.enum(LEFT_OUT)).default([]),
  tallies: z.array(Tally).min(1).max(200),
});
export type Ask = z.infer<typeof Ask>;

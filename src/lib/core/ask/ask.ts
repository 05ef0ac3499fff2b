import { z } from 'zod';
import { Tally } from '../tally/specs';
import { questionParts } from './question';

/** One document that asks for any number of tallies over a list: a question and its tallies. */
export const Ask = z.strictObject({
  version: z.literal(2).default(2),
  ...questionParts,
  tallies: z.array(Tally).min(1).max(200),
});
export type Ask = z.infer<typeof Ask>;

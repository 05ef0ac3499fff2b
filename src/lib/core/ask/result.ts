import { z } from 'zod';
import { COLUMN_TYPES } from '../table/column';
import { Footing } from '../tally/footing';
import { TallyResult } from '../tally/result';
import { Warning } from '../tally/warnings';

/** What an ask comes to. */
export const AskResult = z.object({
  version: z.literal(3),
  list: z.object({
    name: z.string(),
    records: z.int(),
    columns: z.array(
      z.object({ id: z.string(), name: z.string(), type: z.enum(COLUMN_TYPES), unit: z.string() }),
    ),
  }),
  /** What counts, rung by rung. */
  counts: z.object({
    all: z.int(),
    rungs: z.array(
      z.object({
        says: z.string(),
        on: z.boolean(),
        kept: z.int(),
        removed: z.int(),
        blank: z.int(),
        unread: z.int(),
      }),
    ),
    narrowed: z.int(),
    setAside: z.int(),
    counted: z.int(),
  }),
  /** What should be known about joins, stacking and computed columns. */
  prepared: z.array(Warning),
  tallies: z.array(TallyResult.extend({ title: z.string().optional(), footing: Footing })),
});
export type AskResult = z.infer<typeof AskResult>;

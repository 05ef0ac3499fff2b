import { z } from 'zod';
import { COLUMN_TYPES } from '../table/column';
import { NumberFormat } from '../table/format';
import { Footing } from '../tally/trust/footing';
import { TallyResult } from '../tally/answer/result';
import { Warning } from '../tally/trust/warnings';
import { VERSION } from './version';

/** What a question over one list comes to. */
const ListResult = z.object({
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
        words: z.string(),
        on: z.boolean(),
        kept: z.int(),
        removed: z.int(),
        blank: z.int(),
        unread: z.int(),
      }),
    ),
    narrowed: z.int(),
    setAside: z.int(),
    /** What was set aside by hand, in words: its records, and the values of which all are. */
    aside: z.array(z.string()).default([]),
    /** Cells put right by hand, each in words: its record, its column, what stood there and what stands now. */
    corrections: z.array(z.string()).default([]),
    counted: z.int(),
  }),
  /** What should be known about joins, stacking and computed columns. */
  prepared: z.array(Warning),
  tallies: z.array(
    TallyResult.extend({
      title: z.string().optional(),
      footing: Footing,
      /** Of a report: the words that stand below the tally. */
      note: z.string().optional(),
      /** Of a report: why the tally has no figures, where it has none. */
      refused: z.string().optional(),
    }),
  ),
  /** How numbers are shown where they are shown, by column or measure. */
  formats: z.record(z.string(), NumberFormat).optional(),
});
export type ListResult = z.infer<typeof ListResult>;

/** What an ask comes to: the list in question, and the others that were asked of beside it. */
export const AskResult = z.object({
  version: z.literal(VERSION),
  ...ListResult.shape,
  /** Of a report: its title, and the words before its tallies. */
  report: z.object({ title: z.string(), intro: z.string() }).optional(),
  also: z.array(ListResult),
});
export type AskResult = z.infer<typeof AskResult>;

/** All tallies of an answer in the order they were asked for, those of other lists behind. */
export const talliesOf = ({ tallies, also }: AskResult): AskResult['tallies'] => [
  ...tallies,
  ...also.flatMap((of) => of.tallies),
];

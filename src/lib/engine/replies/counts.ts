import { z } from 'zod';
import { CALENDAR_PERIODS } from '../../core/table/period';
import { Fault } from '../../core/tally/spec/fault';
import { FigureType } from '../../core/tally/answer/result';
import { Warning } from '../../core/tally/trust/warnings';

const Count = z.strictObject({ records: z.int(), lead: z.string() });

/** What counts, rung by rung, and what does not fit the list. */
export const Counts = z.strictObject({
  token: z.int(),
  all: Count,
  rungs: z.array(
    Count.extend({
      id: z.string(),
      /** Whether it narrows; a step that does not fit is switched off whatever its switch says. */
      on: z.boolean(),
      /** Why it does not fit; empty where it does. */
      fault: z.string(),
      words: z.string(),
      removed: z.int(),
      blank: z.int(),
      unread: z.int(),
    }),
  ),
  narrowed: Count,
  setAside: Count,
  counted: Count,
  /** What was set aside by hand, in words. */
  aside: z.array(z.string()),
  /** Cells that were put right by hand. */
  corrections: z.array(z.strictObject({ record: z.int(), column: z.string(), words: z.string() })),
  columns: z.array(
    z.strictObject({
      id: z.string(),
      name: z.string(),
      type: FigureType,
      unit: z.string(),
      /** The span that each of its dates stands for. */
      grain: z.enum(CALENDAR_PERIODS).optional(),
    }),
  ),
  /** Everything that does not fit and takes no part, by its path in the bench. */
  faults: z.array(Fault),
  warnings: z.array(Warning),
  /** Cells of the list that could not be read. */
  unread: z.int(),
});
export type Counts = z.infer<typeof Counts>;

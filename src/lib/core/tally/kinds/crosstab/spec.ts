import { z } from 'zod';
import { GroupKey } from '../../../arrange/groupKey';
import { Measure } from '../../../measure/measure';
import { tallyCommon } from '../../spec/common';

/** Groups down and groups across, and measures where they meet. */
export const CrosstabSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('crosstab'),
  down: z.array(GroupKey).min(1).max(6),
  across: z.array(GroupKey).min(1).max(4),
  measures: z.array(Measure).min(1).max(20),
  /** Shares that stand beside every measure that adds. */
  shares: z
    .array(z.enum(['row', 'column', 'total']))
    .max(3)
    .default([]),
  /** Whether the count of records stands beside every figure. */
  count: z.boolean().default(false),
  /** Figures on fewer records than this are marked. */
  few: z.int().min(0).max(1_000_000).default(10),
});
export type CrosstabSpec = z.infer<typeof CrosstabSpec>;

/** Groups across that still make a table; more are refused. */
export const MOST_ACROSS = 256;
/** Cells of one level down and one across. */
export const MOST_CELLS = 4_000_000;

import { z } from 'zod';
import { GroupKey } from '../../../arrange/groupKey';
import { tallyCommon } from '../../spec/common';
import { SeriesSpec } from '../../series/seriesSpec';

/** The least-squares line of one number column on another, or of a series on its periods. */
export const LineSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('line'),
  /** The column along, and the one that the line follows. */
  x: z.string().optional(),
  y: z.string().optional(),
  /** A line for each group besides the whole. */
  by: z.array(GroupKey).max(4).default([]),
  /** Instead of two columns: a series over its periods, counted from 1. */
  series: SeriesSpec.optional(),
  /** Whether the line goes through the origin. */
  origin: z.boolean().default(false),
  /** Values of x at which y is predicted. */
  at: z.array(z.number()).max(20).default([]),
  /** How many of a hundred such values lie within the bounds of a prediction. */
  percent: z.number().gt(0).lt(100).default(95),
  /** Records further from the line than so many residual deviations are named. */
  far: z.number().min(1).max(20).default(3),
});
export type LineSpec = z.infer<typeof LineSpec>;

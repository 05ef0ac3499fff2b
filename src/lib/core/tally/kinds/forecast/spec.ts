import { z } from 'zod';
import { METHODS, SEASON_BY } from '../../../forecast/method';
import { tallyCommon } from '../../spec/common';
import { SeriesSpec } from '../../series/seriesSpec';

const share = z.number().min(0).max(1);

/** The series carried on by a method, with prediction intervals. */
export const ForecastSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('forecast'),
  series: SeriesSpec,
  method: z.enum(['best', ...METHODS]).default('best'),
  /** Periods ahead. */
  horizon: z.int().min(1).max(600).default(12),
  /** Periods in a season; a year's worth unless given, 1 for none. */
  season: z.int().min(1).max(400).optional(),
  /** Smoothing parameters; those left out are found. `k`: how many values the mean takes. */
  parameters: z
    .strictObject({
      alpha: share.optional(),
      beta: share.optional(),
      gamma: share.optional(),
      phi: z.number().min(0.01).max(1).optional(),
      k: z.int().min(1).max(10_000).optional(),
      /** Multiplicative seasons: by the level before the value, or by the level that it made. */
      seasonBy: z.enum(SEASON_BY).optional(),
    })
    .default({}),
  /** What to do about a period without a figure. */
  gaps: z.enum(['refuse', 'zero', 'interpolate']).default('refuse'),
  /** A last period that the data cover only partly. */
  incompleteLast: z.enum(['leaveOut', 'keep']).default('leaveOut'),
  levels: z.array(z.number().gt(0).lt(1)).max(5).default([0.8, 0.95]),
  /** Last points held out to measure methods by; a season or a fifth unless given. */
  holdOut: z.int().min(1).max(1000).optional(),
});
export type ForecastSpec = z.infer<typeof ForecastSpec>;

import { z } from 'zod';
import { GroupKey } from '../../../arrange/groupKey';
import { Measure } from '../../../measure/measure';
import { tallyCommon } from '../../spec/common';

/** A measure of this list set against one of another list, group by group: plan and actual, ledger and statement. */
export const ReconciliationSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('reconciliation'),
  /** The other list, by the name the ask gives it. All of its records count. */
  with: z.string(),
  measure: Measure,
  by: z.array(GroupKey).min(1).max(4),
  /** What it is set against, of columns of the other list; the same measure of columns of the same names unless given. */
  against: Measure.optional(),
  /** The columns of the other list that the keys meet, in their order; those of the same names unless given. */
  meets: z.array(z.string()).max(4).optional(),
  /** How far apart two figures may lie: by an amount, or by so many per cent of the other list's figure. */
  tolerance: z
    .strictObject({ in: z.enum(['amount', 'percent']), most: z.number().min(0) })
    .default({ in: 'amount', most: 0 }),
  /** Only groups that lie further apart, or are in one list alone. */
  apart: z.boolean().default(false),
  order: z.enum(['size', 'label']).default('size'),
});
export type ReconciliationSpec = z.infer<typeof ReconciliationSpec>;

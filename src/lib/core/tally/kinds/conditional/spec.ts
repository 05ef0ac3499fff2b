import { z } from 'zod';
import { GroupKey } from '../../../arrange/groupKey';
import { Measure } from '../../../measure/measure';
import { Condition } from '../../../selection/condition';
import { tallyCommon } from '../../spec/common';

/** Named conditions (or the groups of a key) down, measures under conditions across. */
export const ConditionalSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('conditional'),
  /** The rows: named conditions, which may overlap. */
  rows: z
    .array(z.strictObject({ name: z.string().min(1).max(200), condition: Condition }))
    .max(500)
    .default([]),
  /** Or the groups of a key. */
  key: GroupKey.optional(),
  /** A last row for the records that meet none of the conditions. */
  everythingElse: z.boolean().default(false),
  columns: z
    .array(
      z.strictObject({
        name: z.string().max(200).optional(),
        measure: Measure.default({ kind: 'records' }),
        condition: Condition.optional(),
      }),
    )
    .min(1)
    .max(100),
  few: z.int().min(0).max(1_000_000).default(10),
});
export type ConditionalSpec = z.infer<typeof ConditionalSpec>;

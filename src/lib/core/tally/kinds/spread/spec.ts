import { z } from 'zod';
import { GroupKey } from '../../../arrange/groupKey';
import { Measure } from '../../../measure/measure';
import { tallyCommon } from '../../spec/common';

/** A measure without its column: the columns stand beside one another. */
const Fact = Measure.omit({ column: true, other: true });
type Fact = z.infer<typeof Fact>;

const USUAL: Fact[] = (
  [
    'values',
    'blanks',
    'unread',
    'mean',
    'sd',
    'min',
    'lowerQuartile',
    'median',
    'upperQuartile',
    'max',
    'iqr',
    'skewness',
  ] as const
).map((kind) => ({ kind }));

/** The facts of several columns, or of one column's groups, side by side. */
export const SpreadSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('spread'),
  columns: z.array(z.string()).min(1).max(200),
  key: GroupKey.optional(),
  facts: z.array(Fact).min(1).max(60).default(USUAL),
  few: z.int().min(0).max(1_000_000).default(10),
});
export type SpreadSpec = z.infer<typeof SpreadSpec>;

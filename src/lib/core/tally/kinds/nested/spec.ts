import { z } from 'zod';
import { tallyCommon } from '../../spec/common';
import type { ScopeName } from '../../answer/result';
import { SimpleTally } from '../../spec/simpleSpecs';

/** What a tally of groups is built on: a tally of the records, or one of groups again, to any depth. */
export type InnerTally = SimpleTally | NestedSpec;

const Inner: z.ZodType<InnerTally> = z.lazy(() =>
  z.discriminatedUnion('kind', [...SimpleTally.options, NestedSpec]),
);

/** A tally of another tally's groups: of each region, the highest of the sums by depot, and which. */
export const NestedSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('nested'),
  /** Computed from the records; its groups become the records of the outer one. */
  inner: Inner,
  /** Which of the inner's tables; the first unless given. */
  table: z.string().default('main'),
  /** Columns are those of the inner result, by title or key (`m1`, `records`). */
  outer: SimpleTally,
});
export interface NestedSpec {
  title?: string | undefined;
  scope: ScopeName;
  kind: 'nested';
  inner: InnerTally;
  table: string;
  outer: SimpleTally;
}

import { z } from 'zod';
import { ComparisonSpec } from '../kinds/comparison/spec';
import { NestedSpec } from '../kinds/nested/spec';
import { ReconciliationSpec } from '../kinds/reconciliation/spec';
import { SimpleTally } from './simpleSpecs';

/**
 * What any tally is asked by, without anything that computes: pages and documents import this. A
 * new kind adds its line here (or in `simpleSpecs.ts`) and in its registry.
 */
export const Tally = z.discriminatedUnion('kind', [
  ...SimpleTally.options,
  NestedSpec,
  ComparisonSpec,
  ReconciliationSpec,
]);
export type Tally = z.infer<typeof Tally>;

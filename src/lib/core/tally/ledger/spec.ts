import { z } from 'zod';
import { GroupKey } from '../../arrange/groupKey';
import { SortKey } from '../../arrange/sortKey';
import { Measure } from '../../measure/measure';

/** The ledger: records in groups, with measures under each group and a grand total. */
export const LedgerSpec = z.object({
  groups: z.array(GroupKey).max(12).default([]),
  sort: z.array(SortKey).max(12).default([]),
  measures: z.array(Measure).max(60).default([]),
  totals: z.enum(['above', 'below']).default('below'),
});
export type LedgerSpec = z.infer<typeof LedgerSpec>;

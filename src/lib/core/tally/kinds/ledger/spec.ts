import { z } from 'zod';
import { GroupKey } from '../../../arrange/groupKey';
import { SortKey } from '../../../arrange/sortKey';
import { Measure } from '../../../measure/measure';
import { tallyCommon } from '../../spec/common';

/** The ledger: records in groups, with measures under each group and a grand total. */
export const LedgerSpec = z.strictObject({
  ...tallyCommon,
  kind: z.literal('ledger'),
  groups: z.array(GroupKey).max(12).default([]),
  /** Order of the records; those it holds equal keep the order of the list. */
  sort: z.array(SortKey).max(12).default([]),
  measures: z.array(Measure).max(60).default([]),
  /** Whether the records stand in a table of their own, in the order of the ledger. */
  records: z.boolean().default(false),
});
export type LedgerSpec = z.infer<typeof LedgerSpec>;

import { z } from 'zod';
import { ScopeName } from '../answer/result';

/** What every tally's spec holds besides its own. */
export const tallyCommon = {
  /** Heading in the report; the sentence stands in for it. */
  title: z.string().max(200).optional(),
  /** The records it uses: counted, unless it says otherwise. */
  scope: ScopeName.default('counted'),
} as const;

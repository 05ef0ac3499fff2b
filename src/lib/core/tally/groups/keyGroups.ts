import type { SettledBand } from '../../arrange/bands';
import type { GroupCodes } from '../../arrange/groupCodes';
import type { Warning } from '../trust/warnings';

/** The groups of a key, and what should be known about its bands. */
export interface KeyGroups {
  readonly codes: GroupCodes;
  readonly bands: SettledBand[] | null;
  readonly warnings: Warning[];
}

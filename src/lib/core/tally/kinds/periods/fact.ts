import { counted } from '../../../table/format';
import type { TallyAnswer } from '../../answer/answer';
import { groupRows } from '../../groups/groupRows';
import { signedShare } from '../../../table/format';

/** The newest change: `+0.8 %`; without one, how many periods there are. */
export function periodsFact({ tables: [main] }: TallyAnswer): string {
  const at = main.columns.findIndex((c) => /Change$/.test(c.key));
  const last = main.length - 1;
  const change = at < 0 ? NaN : main.number(last, at);
  return change === change ? signedShare(change) : counted(groupRows(main), 'period');
}

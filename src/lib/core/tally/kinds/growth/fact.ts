import type { TallyAnswer } from '../../answer/answer';
import { signedShare } from '../../../table/format';

/** The compound rate: `+13.2 %` */
export function growthFact({ tables: [main] }: TallyAnswer): string {
  const at = main.columns.findIndex((c) => c.key === 'rate');
  const rate = at < 0 || main.length === 0 ? NaN : main.number(0, at);
  return rate === rate ? signedShare(rate) : '';
}

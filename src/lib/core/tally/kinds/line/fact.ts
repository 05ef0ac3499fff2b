import { showDecimals } from '../../../table/format';
import type { TallyAnswer } from '../../answer/answer';

/** How close the points lie: `r² 0.93` */
export function lineFact({ tables: [main] }: TallyAnswer): string {
  const at = main.columns.findIndex((c) => c.key === 'r2');
  const r2 = at < 0 || main.length === 0 ? NaN : main.number(0, at);
  return r2 === r2 ? `r² ${showDecimals(r2, 2)}` : '';
}

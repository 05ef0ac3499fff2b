import { showCount } from '../../table/format';
import type { TallyAnswer } from '../answer';

/** `3 moved` */
export function comparisonFact({ tables: [main] }: TallyAnswer): string {
  const at = main.columns.findIndex((c) => c.key === 'difference');
  let moved = 0;
  for (let n = 0; n < main.length; n++) if (main.number(n, at) !== 0) moved++;
  return moved ? `${showCount(moved)} moved` : 'nothing moved';
}

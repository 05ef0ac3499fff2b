import { showCount } from '../../../table/format';
import type { TallyAnswer } from '../../answer/answer';

/** How many groups do not agree: `3 apart` */
export function reconciliationFact({ tables: [main] }: TallyAnswer): string {
  const state = main.columns.findIndex((c) => c.key === 'state');
  let apart = 0;
  for (let n = 0; n < main.length; n++) {
    const row = main.row(n);
    if (row.kind === 'group' && row.cells[state] !== 'agrees') apart++;
  }
  return apart ? `${showCount(apart)} apart` : 'all agree';
}

import { showCount } from '../../../table/format';
import type { TallyAnswer } from '../../answer/answer';
import { groupRows } from '../../groups/groupRows';

/** `665 in both`; without an overlap, how many rows there are. */
export function conditionalFact({ tables }: TallyAnswer): string {
  const coverage = tables.find((t) => t.name === 'coverage');
  const several = coverage ? coverage.number(1, 1) : 0;
  const rows = groupRows(tables[0]);
  return several > 0 ? `${showCount(several)} in several` : `${rows} rows`;
}

import { counted } from '../../../table/format';
import type { TallyAnswer } from '../../answer/answer';
import { figureText } from '../../answer/figureText';
import { groupRows } from '../../groups/groupRows';
import type { PercentileSpec } from './spec';

/** `90 % ≤ 7` */
export function percentileFact({ tables: [main] }: TallyAnswer, spec: PercentileSpec): string {
  if (spec.key) return counted(groupRows(main), 'row');
  const last = main.length - 1;
  const at = main.columns.findIndex((c) => c.key === 'value');
  if (main.name !== 'main' || last < 0 || at < 0) return counted(spec.ranksOf.length, 'value');
  return `${spec.percentiles[last]} % ≤ ${figureText(main.columns[at], main.row(last).cells[at])}`;
}

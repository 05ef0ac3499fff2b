import type { TallyAnswer } from '../../answer/answer';
import { groupRows } from '../../groups/groupRows';

/** `8 by 4` */
export function crosstabFact({ tables: [main] }: TallyAnswer): string {
  const across = main.columns.filter((c) => c.measure && /^a\d+\.m1$/.test(c.key)).length;
  return `${groupRows(main)} by ${across}`;
}

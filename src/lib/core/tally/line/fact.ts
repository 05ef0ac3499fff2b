import type { TallyAnswer } from '../answer';

/** How close the points lie: `r² 0.93` */
export function lineFact({ tables: [main] }: TallyAnswer): string {
  const at = main.columns.findIndex((c) => c.key === 'r2');
  const r2 = at < 0 || main.length === 0 ? NaN : main.number(0, at);
  return r2 === r2 ? `r² ${r2.toFixed(2)}` : '';
}

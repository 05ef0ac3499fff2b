import { showCount } from '../../../table/format';
import type { TallyAnswer } from '../../answer/answer';

/** `3 moved` */
export function comparisonFact({ tables: [main] }: TallyAnswer): string {
  const at = (key: string): number => main.columns.findIndex((c) => c.key === key);
  const [before, after] = [at('before'), at('after')];
  let moved = 0;
  for (let n = 0; n < main.length; n++) {
    // Texts move as well, and have no difference.
    const { cells } = main.row(n);
    if (cells[before] !== cells[after]) moved++;
  }
  return moved ? `${showCount(moved)} moved` : 'nothing moved';
}

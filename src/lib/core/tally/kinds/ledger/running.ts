import type { GroupOrder } from '../../../arrange/groupKey';
import type { GroupTree } from '../../../arrange/tree';
import { CompensatedSum } from '../../../measure/compensated';
import type { Measure } from '../../../measure/measure';
import type { Task } from '../../../task/task';
import { orderFigures, type GroupFigures } from '../../groups/groupFigures';
import { orderGroups, walkGroups } from '../../groups/sortedGroups';

/**
 * Running totals over the groups: each group's figure becomes the sum of its own and of all before it
 * at its level, in the order shown. A group without a value leaves the total as it stands. The whole
 * has the whole sum. Where none is asked for, the figures are given back as they are.
 */
export function* withRunning(
  figures: GroupFigures,
  measures: readonly Measure[],
  tree: GroupTree,
  orders: readonly GroupOrder[],
): Task<GroupFigures> {
  const running = measures.flatMap(({ kind }, k) => (kind === 'running' ? [k] : []));
  if (running.length === 0 || tree.levels.length === 0) return figures;
  const levels = figures.levels.map((of) =>
    of.map((values, k) => (running.includes(k) ? values.slice() : values)),
  );
  const sums = levels.map(() => new Map(running.map((k) => [k, new CompensatedSum()])));
  const shown = yield* orderGroups(tree, orders, orderFigures(figures));
  yield* walkGroups(shown, (level, group) => {
    for (const [k, sum] of sums[level]) {
      const own = figures.levels[level][k][group];
      if (own === own) sum.add(own);
      levels[level][k][group] = sum.value;
    }
  });
  return { ...figures, levels };
}

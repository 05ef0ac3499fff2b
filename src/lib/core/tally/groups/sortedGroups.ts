import type { GroupOrder } from '../../arrange/groupKey';
import type { GroupTree } from '../../arrange/tree';
import { mergedSort } from '../../sorting/mergedSort';
import { addedUp } from '../../task/arrays';
import { inStretches, pausing, type Task } from '../../task/task';

/** Figures by which the groups of a level are put in order. */
export interface OrderFigures {
  readonly records: ArrayLike<number>;
  /** By place of the measure. */
  readonly measures: readonly ArrayLike<number>[];
}

/** Puts the groups of a level in order; those of one parent stay side by side elsewhere. */
export function groupComparator(
  tree: GroupTree,
  l: number,
  order: GroupOrder,
  figures: OrderFigures,
): (a: number, b: number) => number {
  const { rank, label } = tree.keys[l];
  const { code } = tree.levels[l];
  const byLabel = (a: number, b: number): number => rank(code[a]) - rank(code[b]);
  switch (order.by) {
    case 'label': {
      const sign = order.descending ? -1 : 1;
      const isBlank = (g: number): number => (code[g] < 0 ? 1 : 0);
      return (a, b) => isBlank(a) - isBlank(b) || sign * byLabel(a, b);
    }
    case 'hand': {
      const given = new Map(order.labels.map((text, at) => [text, at]));
      const at = (g: number): number => given.get(label(code[g])) ?? order.labels.length;
      return (a, b) => at(a) - at(b) || byLabel(a, b);
    }
    case 'count':
      return byFigure(figures.records, order.descending, byLabel);
    case 'measure': {
      const values = figures.measures[order.measure];
      return values ? byFigure(values, order.descending, byLabel) : byLabel;
    }
  }
}

/** None last either way; ties by label. */
function byFigure(
  values: ArrayLike<number>,
  descending: boolean,
  byLabel: (a: number, b: number) => number,
): (a: number, b: number) => number {
  const sign = descending ? -1 : 1;
  return (a, b) => {
    const x = values[a];
    const y = values[b];
    if (x !== x || y !== y) return Number(x !== x) - Number(y !== y) || byLabel(a, b);
    return sign * (x - y) || byLabel(a, b);
  };
}

/** The leaves of one key that have records, in the order of their labels. */
export function* leavesInOrder(
  { keys: [key], levels: [level] }: GroupTree,
  counts: ArrayLike<number>,
): Task<number[]> {
  const there: number[] = [];
  yield* inStretches(counts.length, (from, to) => {
    for (let leaf = from; leaf < to; leaf++) if (counts[leaf] > 0) there.push(leaf);
  });
  return yield* mergedSort(there, (a, b) => key.rank(level.code[a]) - key.rank(level.code[b]));
}

/** The groups of each level in the order shown, parent by parent. */
export interface ShownGroups {
  /** Groups in order, those of one parent side by side. */
  readonly order: readonly Int32Array[];
  /** Where each parent's children begin in `order`; one more entry than parents. */
  readonly start: readonly Int32Array[];
}

/**
 * Puts the groups of every level in order; those without records are left out.
 * @param isThere which groups have records, unless the figures say so
 */
export function* orderGroups(
  tree: GroupTree,
  orders: readonly GroupOrder[],
  figures: readonly OrderFigures[],
  isThere: (level: number, group: number) => boolean = (l, g) => figures[l].records[g] > 0,
): Task<ShownGroups> {
  const order: Int32Array[] = [];
  const start: Int32Array[] = [];
  for (const [l, { parent, size }] of tree.levels.entries()) {
    const shown: number[] = [];
    yield* inStretches(size, (from, to) => {
      for (let g = from; g < to; g++) if (isThere(l, g)) shown.push(g);
    });
    const compare = groupComparator(tree, l, orders[l], figures[l]);
    const sorted = yield* mergedSort(shown, (a, b) => parent[a] - parent[b] || compare(a, b));
    const begins = new Int32Array((l === 0 ? 1 : tree.levels[l - 1].size) + 1);
    const ordered = new Int32Array(sorted.length);
    yield* inStretches(sorted.length, (from, to) => {
      for (let k = from; k < to; k++) {
        ordered[k] = sorted[k];
        begins[parent[sorted[k]] + 1]++;
      }
    });
    yield* addedUp(begins);
    order.push(ordered);
    start.push(begins);
  }
  return { order, start };
}

/** Groups between two pauses of a walk. */
const WALKED = 4096;

/** Depth first: `visit(level, group)` comes for a group before it comes for its children. */
export function* walkGroups(
  { order, start }: ShownGroups,
  visit: (level: number, group: number) => void,
): Task<void> {
  if (order.length === 0) return;
  const due = pausing(WALKED);
  // By level, the next of the open group's children and the one behind its last.
  const next = [0];
  const end = [order[0].length];
  for (let visited = 0; next.length > 0;) {
    const level = next.length - 1;
    if (next[level] === end[level]) {
      next.pop();
      end.pop();
      continue;
    }
    const group = order[level][next[level]++];
    visit(level, group);
    if (level + 1 < order.length) {
      next.push(start[level + 1][group]);
      end.push(start[level + 1][group + 1]);
    }
    if (due(++visited)) yield undefined;
  }
}

import type { GroupOrder } from '../arrange/groupKey';
import type { GroupTree } from '../arrange/tree';

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

/**
 * The groups of every level that have records, depth first: `visit(level, group)` comes before its
 * children and `leave` behind them.
 */
export function walkGroups(
  tree: GroupTree,
  orders: readonly GroupOrder[],
  figures: readonly OrderFigures[],
  visit: (level: number, group: number) => void,
  leave: (level: number, group: number) => void = () => undefined,
): void {
  const children: number[][][] = tree.levels.map((level, l) => {
    const parents = l === 0 ? 1 : tree.levels[l - 1].size;
    const out: number[][] = Array.from({ length: parents }, () => []);
    const compare = groupComparator(tree, l, orders[l], figures[l]);
    for (let g = 0; g < level.size; g++)
      if (figures[l].records[g] > 0) out[level.parent[g]].push(g);
    for (const list of out) if (list.length > 1) list.sort(compare);
    return out;
  });
  const walk = (level: number, parent: number): void => {
    for (const group of children[level]?.[parent] ?? []) {
      visit(level, group);
      walk(level + 1, group);
      leave(level, group);
    }
  };
  walk(0, 0);
}

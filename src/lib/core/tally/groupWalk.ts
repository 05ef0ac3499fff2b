import type { GroupOrder } from '../arrange/groupKey';
import { groupKeys, groupPath, type GroupTree } from '../arrange/tree';
import { groupWhere } from './keys';
import type { Figure, FigureRow } from './result';
import { walkGroups, type OrderFigures } from './sortedGroups';

/**
 * The groups of a tree that have records, as rows: the whole first, then depth first each group
 * before those inside it. Rows are made one by one when they are asked for.
 */
export class GroupWalk {
  readonly #levels: number[] = [-1];
  readonly #groups: number[] = [0];
  readonly #parents: number[] = [-1];
  /** Row of each group, by level. */
  readonly #rows: Map<number, number>[];

  constructor(
    readonly tree: GroupTree,
    orders: readonly GroupOrder[],
    figures: readonly OrderFigures[],
  ) {
    this.#rows = tree.levels.map(() => new Map());
    const open: number[] = [];
    walkGroups(tree, orders, figures, (level, group) => {
      open[level] = this.#levels.length;
      this.#rows[level].set(group, this.#levels.length);
      this.#levels.push(level);
      this.#groups.push(group);
      this.#parents.push(level === 0 ? 0 : open[level - 1]);
    });
  }

  get length(): number {
    return this.#levels.length;
  }

  /** Level from 0 and group of a row; level -1 is the whole. */
  at(row: number): { level: number; group: number } {
    return { level: this.#levels[row], group: this.#groups[row] };
  }

  /** The place of the row this one is a part of; -1 for the whole. */
  partOf(row: number): number {
    return this.#parents[row];
  }

  /** Rows at each level, the whole left out. */
  counts(): number[] {
    return this.#rows.map((rows) => rows.size);
  }

  /** The row of the group with these keys, one for each level down to its own; -1 where there is none. */
  find(keys: readonly Figure[]): number {
    const { tree } = this;
    const level = keys.length - 1;
    if (level < 0) return 0;
    for (const [group, row] of this.#rows[level] ?? []) {
      if (tree.keys[level].key(tree.levels[level].code[group]) !== keys[level]) continue;
      if (this.keys(row).every((key, k) => key === keys[k])) return row;
    }
    return -1;
  }

  /** The keys of a row, from the first level down to its own; none for the whole. */
  keys(row: number): Figure[] {
    const { level, group } = this.at(row);
    return level < 0 ? [] : groupKeys(this.tree, level, group);
  }

  /** A row with its labels, keys and place; `cells` are its figures. */
  row(n: number, cells: readonly Figure[]): FigureRow {
    const { level, group } = this.at(n);
    const depth = this.tree.levels.length;
    const path = level < 0 ? ['Grand total'] : groupPath(this.tree, level, group);
    return {
      kind: level < 0 || level < depth - 1 ? 'total' : 'group',
      level: level + 1,
      cells: [...this.tree.levels.map((_, l) => path[l] ?? null), ...cells],
      keys: this.keys(n),
      ...(level >= 0 && {
        where: groupWhere(this.tree, level, group),
        partOf: this.partOf(n),
      }),
    };
  }
}

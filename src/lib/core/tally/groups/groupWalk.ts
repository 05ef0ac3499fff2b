import type { GroupOrder } from '../../arrange/groupKey';
import { groupKeys, groupPath, type GroupTree } from '../../arrange/tree';
import { lookedUp } from '../../task/arrays';
import { inStretches, type Task } from '../../task/task';
import { orderReadInSteps } from '../../table/recordOrder';
import { groupWhere } from './keys';
import type { Bitset } from '../../table/bitset';
import type { Figure, FigureRow } from '../answer/result';
import { recordsOfLeaves, whereOfGroups, type CarriedFrom } from './carriedFrom';
import { orderGroups, walkGroups, type OrderFigures } from './sortedGroups';

/**
 * The groups of a tree that have records, as rows: the whole first, then depth first each group
 * before those inside it. Rows are made one by one when they are asked for.
 */
export class GroupWalk {
  readonly #levels: number[] = [-1];
  readonly #groups: number[] = [0];
  readonly #parents: number[] = [-1];
  /** Row of each group, by level; 0 where it has none. */
  readonly #rows: readonly Int32Array[];
  readonly #counts: number[];

  private constructor(readonly tree: GroupTree) {
    this.#rows = tree.levels.map(({ size }) => new Int32Array(size));
    this.#counts = tree.levels.map(() => 0);
  }

  /** @param figures what the groups of each level are put in order by */
  static *of(
    tree: GroupTree,
    orders: readonly GroupOrder[],
    figures: readonly OrderFigures[],
  ): Task<GroupWalk> {
    const walk = new GroupWalk(tree);
    const open: number[] = [];
    yield* walkGroups(yield* orderGroups(tree, orders, figures), (level, group) => {
      const row = walk.#levels.push(level) - 1;
      open[level] = row;
      walk.#rows[level][group] = row;
      walk.#counts[level]++;
      walk.#groups.push(group);
      walk.#parents.push(level === 0 ? 0 : open[level - 1]);
    });
    return walk;
  }

  get length(): number {
    return this.#levels.length;
  }

  /** The deepest level that its rows have, as `row` counts it: 0 where there is the whole alone. */
  get deepest(): number {
    return this.#counts.findLastIndex((count) => count > 0) + 1;
  }

  /** How many of its rows are groups, and not totals of others. */
  get groups(): number {
    return this.#counts.at(-1) ?? 0;
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
    return [...this.#counts];
  }

  /** The row of the group with these keys, one for each level down to its own; -1 where there is none. */
  *find(keys: readonly Figure[]): Task<number> {
    const { tree } = this;
    const level = keys.length - 1;
    if (level < 0) return 0;
    const { code } = tree.levels[level];
    const rows = this.#rows[level];
    let found = -1;
    yield* inStretches(rows.length, (from, to) => {
      for (let group = from; group < to && found < 0; group++)
        // In the order of groups, not of rows: few have the key, and one of them the whole path.
        if (
          rows[group] > 0 &&
          tree.keys[level].key(code[group]) === keys[level] &&
          this.keys(rows[group]).every((key, k) => key === keys[k])
        )
          found = rows[group];
    });
    return found;
  }

  /** What stands under the rows of a row's level down to it. */
  *reached(n: number): Task<CarriedFrom | null> {
    const { tree } = this;
    const { level, group: own } = this.at(n);
    if (level < 0) return null;
    let groupOf = yield* orderReadInSteps(tree.leaves);
    for (let l = tree.levels.length - 1; l > level; l--)
      groupOf = yield* lookedUp(tree.levels[l].parent, groupOf);
    const rows = this.#rows[level];
    const isReached = (group: number): boolean => rows[group] > 0 && rows[group] <= rows[own];
    const leaves: number[] = [];
    yield* inStretches(tree.leaves, (from, to) => {
      for (let leaf = from; leaf < to; leaf++) if (isReached(groupOf[leaf])) leaves.push(leaf);
    });
    const groups: number[] = [];
    yield* inStretches(rows.length, (from, to) => {
      for (let group = from; group < to; group++) if (isReached(group)) groups.push(group);
    });
    return {
      rows: groups.length,
      records: yield* recordsOfLeaves(tree, leaves),
      where: whereOfGroups(groups, (group) => groupWhere(tree, level, group)),
    };
  }

  /** The keys of a row, from the first level down to its own; none for the whole. */
  keys(row: number): Figure[] {
    const { level, group } = this.at(row);
    return level < 0 ? [] : groupKeys(this.tree, level, group);
  }

  /** The records of several rows. */
  *recordsOf(rows: ArrayLike<number>): Task<Bitset> {
    const { tree } = this;
    const isChosen = new Uint8Array(this.length);
    yield* inStretches(rows.length, (from, to) => {
      for (let k = from; k < to; k++) isChosen[rows[k]] = 1;
    });
    const chosen: number[] = [];
    let groupOf = yield* orderReadInSteps(tree.leaves);
    for (let l = tree.levels.length - 1; l >= 0; l--) {
      const [groups, ofLevel] = [groupOf, this.#rows[l]];
      yield* inStretches(tree.leaves, (from, to) => {
        for (let leaf = from; leaf < to; leaf++)
          if (isChosen[ofLevel[groups[leaf]]] === 1) chosen.push(leaf);
      });
      groupOf = yield* lookedUp(tree.levels[l].parent, groups);
    }
    return yield* recordsOfLeaves(tree, chosen);
  }

  /** A row without labels and figures. */
  outline(n: number): { kind: FigureRow['kind']; level: number; keys: Figure[] } {
    const { level } = this.at(n);
    const isTotal = level < this.tree.levels.length - 1;
    return { kind: isTotal ? 'total' : 'group', level: level + 1, keys: this.keys(n) };
  }

  /** A row with its labels, keys and place; `cells` are its figures. */
  row(n: number, cells: readonly Figure[]): FigureRow {
    const { level, group } = this.at(n);
    const path = level < 0 ? ['Grand total'] : groupPath(this.tree, level, group);
    return {
      ...this.outline(n),
      cells: [...this.tree.levels.map((_, l) => path[l] ?? null), ...cells],
      ...(level >= 0 && {
        where: groupWhere(this.tree, level, group),
        partOf: this.partOf(n),
      }),
    };
  }
}

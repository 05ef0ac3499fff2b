import type { GroupCodes } from './groupCodes';

/** The groups of one level, numbered 0..size-1. */
export interface TreeLevel {
  readonly size: number;
  /** The group above each, by number in the level above; 0 (the root) for the first level. */
  readonly parent: Int32Array;
  /** Each group's code in its key. */
  readonly code: Int32Array;
}

/** Groups within groups. A tree without levels is the root alone. */
export interface GroupTree {
  readonly keys: readonly GroupCodes[];
  readonly levels: readonly TreeLevel[];
  /** Each record's group at the deepest level. */
  readonly leafOf: Int32Array;
  readonly leaves: number;
}

/** Pairs (group above, code) up to this many are numbered through an array, more through a map. */
const DIRECT = 1 << 24;

/** Builds the tree over all records of the list; selections only leave groups empty. */
export function buildTree(length: number, keys: readonly GroupCodes[]): GroupTree {
  const levels: TreeLevel[] = [];
  let above = new Int32Array(length);
  let aboveSize = 1;
  for (const key of keys) {
    const { level, groupOf } = deepen(above, aboveSize, key);
    levels.push(level);
    above = groupOf;
    aboveSize = level.size;
  }
  return { keys, levels, leafOf: above, leaves: keys.length ? aboveSize : 1 };
}

function deepen(above: Int32Array, aboveSize: number, key: GroupCodes): { level: TreeLevel; groupOf: Int32Array<ArrayBuffer> } {
  const { codes, size } = key;
  const groupOf = new Int32Array(codes.length);
  const parent: number[] = [];
  const code: number[] = [];
  if (aboveSize * size <= DIRECT) {
    // Numbers are one higher in the table, so that its zeros mean "not met yet".
    const number = new Int32Array(aboveSize * size);
    for (let i = 0; i < codes.length; i++) {
      const pair = above[i] * size + codes[i];
      let group = number[pair];
      if (group === 0) {
        group = parent.push(above[i]);
        code.push(codes[i]);
        number[pair] = group;
      }
      groupOf[i] = group - 1;
    }
  } else {
    const number = new Map<number, number>();
    for (let i = 0; i < codes.length; i++) {
      const pair = above[i] * size + codes[i];
      let group = number.get(pair);
      if (group === undefined) {
        group = parent.push(above[i]) - 1;
        code.push(codes[i]);
        number.set(pair, group);
      }
      groupOf[i] = group;
    }
  }
  return { level: { size: parent.length, parent: Int32Array.from(parent), code: Int32Array.from(code) }, groupOf };
}

/** Where the groups of every level stand once the leaves are put side by side, parent by parent. */
export interface LeafLayout {
  /** The place of each leaf; leaves of one group have neighbouring places. */
  readonly place: Int32Array;
  /** First place of each group, by level; its last is the next group's first in place order. */
  readonly first: readonly Int32Array[];
  readonly end: readonly Int32Array[];
}

/** Orders the leaves depth first, so that one gathering of values by leaf serves every level. */
export function layLeaves(tree: GroupTree): LeafLayout {
  const depth = tree.levels.length;
  const place = new Int32Array(tree.leaves);
  if (depth === 0) return { place, first: [], end: [] };
  let ranks = sequence(tree.levels[0].size);
  for (let l = 1; l < depth; l++) {
    const { parent, size } = tree.levels[l];
    const above = ranks;
    const order = sequence(size).sort((a, b) => above[parent[a]] - above[parent[b]] || a - b);
    ranks = new Int32Array(size);
    order.forEach((group, rank) => (ranks[group] = rank));
  }
  place.set(ranks);
  const first = tree.levels.map((level) => new Int32Array(level.size).fill(tree.leaves));
  const end = tree.levels.map((level) => new Int32Array(level.size));
  for (let leaf = 0; leaf < tree.leaves; leaf++) {
    for (let l = depth - 1, g = leaf; l >= 0; g = tree.levels[l].parent[g], l--) {
      if (place[leaf] < first[l][g]) first[l][g] = place[leaf];
      if (place[leaf] + 1 > end[l][g]) end[l][g] = place[leaf] + 1;
    }
  }
  return { place, first, end };
}

const sequence = (length: number): Int32Array<ArrayBuffer> => Int32Array.from({ length }, (_, i) => i);

/** Labels from the first level down to a group. */
export function groupPath(tree: GroupTree, level: number, group: number): string[] {
  const labels: string[] = [];
  for (let l = level, g = group; l >= 0; l--) {
    labels.unshift(tree.keys[l].label(tree.levels[l].code[g]));
    g = tree.levels[l].parent[g];
  }
  return labels;
}

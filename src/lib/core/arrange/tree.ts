import { addedUp } from '../task/arrays';
import { inStretches, STRIDE, type Task } from '../task/task';
import { DistinctNumbers } from '../table/distinctNumbers';
import type { GroupCodes } from './groupCodes';
import { orderRead } from '../table/recordOrder';

/** The groups of one level, numbered 0..size-1. */
export interface TreeLevel {
  readonly size: number;
  /** The group above each, by number in the level above; 0 (the root) for the first level. */
  readonly parent: Int32Array;
  /** Each group's code in its key; -1 is the blank group. */
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

/** Combinations of codes up to this many are numbered through an array, more as pairs. */
const DIRECT = 1 << 22;

/** Builds the tree over all records of the list; selections only leave groups empty. */
export function* buildTree(length: number, keys: readonly GroupCodes[]): Task<GroupTree> {
  if (keys.length === 0) return { keys, levels: [], leafOf: new Int32Array(length), leaves: 1 };
  if (keys.length === 1) return yield* treeOfOne(keys[0]);
  const combinations = keys.reduce((n, key) => n * (key.size + 1), 1);
  const { leafOf, codes } =
    combinations <= DIRECT
      ? yield* numberDirectly(length, keys, combinations)
      : yield* numberByPairs(length, keys);
  return { keys, levels: yield* levelsOf(keys, codes), leafOf, leaves: codes[0].length };
}

/** One key: its codes are the leaves, with one more for the blank where there is any. */
function* treeOfOne(key: GroupCodes): Task<GroupTree> {
  const { codes, size } = key;
  let blank = false;
  yield* inStretches(codes.length, (from, to) => {
    for (let i = from; i < to && !blank; i++) blank = codes[i] < 0;
  });
  let leafOf = codes;
  if (blank) {
    const own = (leafOf = new Int32Array(codes.length));
    yield* inStretches(codes.length, (from, to) => {
      for (let i = from; i < to; i++) own[i] = codes[i] < 0 ? size : codes[i];
    });
  }
  const leaves = blank ? size + 1 : size;
  const code = new Int32Array(leaves);
  yield* inStretches(leaves, (from, to) => {
    for (let leaf = from; leaf < to; leaf++) code[leaf] = leaf === size ? -1 : leaf;
  });
  return {
    keys: [key],
    levels: [{ size: leaves, parent: new Int32Array(leaves), code }],
    leafOf,
    leaves,
  };
}

interface Leaves {
  readonly leafOf: Int32Array;
  /** Codes of each leaf, by key. */
  readonly codes: readonly Int32Array[];
}

/** One pass: the combination of a record's codes, counted from the blank's 0, is a place in a table. */
function* numberDirectly(
  length: number,
  keys: readonly GroupCodes[],
  combinations: number,
): Task<Leaves> {
  // Leaves are one higher in the table, so that its zeros mean "not met yet".
  const number = new Int32Array(combinations);
  const met = new Int32Array(Math.min(length, combinations));
  const leafOf = new Int32Array(length);
  let leaves = 0;
  if (keys.length === 2) {
    yield* inStretches(length, (from, to) => {
      leaves = numberPairs(keys[0], keys[1], { number, met, leafOf }, leaves, from, to);
    });
  } else {
    yield* inStretches(length, (from, to) => {
      for (const { codes, size } of keys)
        for (let i = from; i < to; i++) leafOf[i] = leafOf[i] * (size + 1) + codes[i] + 1;
      for (let i = from; i < to; i++) {
        const place = leafOf[i];
        if (number[place] === 0) {
          met[leaves] = place;
          number[place] = ++leaves;
        }
        leafOf[i] = number[place] - 1;
      }
    });
  }
  const codes = keys.map(() => new Int32Array(leaves));
  yield* inStretches(leaves, (from, to) => {
    for (let leaf = from; leaf < to; leaf++)
      for (let k = keys.length - 1, rest = met[leaf]; k >= 0; k--) {
        codes[k][leaf] = (rest % (keys[k].size + 1)) - 1;
        rest = Math.floor(rest / (keys[k].size + 1));
      }
  });
  return { leafOf, codes };
}

interface Numbering {
  /** The leaf of each combination, one higher; 0 where it was not met yet. */
  readonly number: Int32Array;
  /** Combinations in the order met. */
  readonly met: Int32Array;
  readonly leafOf: Int32Array;
}

/**
 * The leaves of a stretch of records by two keys: all at hand in one function, which is twice as quick.
 * @param leaves how many were met before
 * @returns how many were met so far
 */
function numberPairs(
  { codes: first }: GroupCodes,
  { codes: second, size }: GroupCodes,
  { number, met, leafOf }: Numbering,
  leaves: number,
  from: number,
  to: number,
): number {
  const step = size + 1;
  for (let i = from; i < to; i++) {
    const place = (first[i] + 1) * step + second[i] + 1;
    let leaf = number[place];
    if (leaf === 0) {
      met[leaves] = place;
      number[place] = leaf = ++leaves;
    }
    leafOf[i] = leaf - 1;
  }
  return leaves;
}

/** Key by key: pairs of the group so far and the next code are numbered as they are met. */
function* numberByPairs(length: number, keys: readonly GroupCodes[]): Task<Leaves> {
  let leafOf = new Int32Array(length);
  let codes: Int32Array[] = [];
  for (const key of keys) {
    const number = new DistinctNumbers(length);
    const [above, shorter] = [leafOf, codes];
    const longer = [...shorter, key].map(() => new Int32Array(length));
    const next = new Int32Array(length);
    // A table of many pairs takes its time.
    yield* inStretches(
      length,
      (from, to) => {
        for (let i = from; i < to; i++) {
          const known = number.size;
          const leaf = number.placeOf(above[i] * (key.size + 1) + key.codes[i] + 1);
          if (leaf === known) {
            for (let k = 0; k < shorter.length; k++) longer[k][leaf] = shorter[k][above[i]];
            longer[shorter.length][leaf] = key.codes[i];
          }
          next[i] = leaf;
        }
      },
      STRIDE / 2,
    );
    leafOf = next;
    codes = longer.map((of) => of.slice(0, number.size));
  }
  return { leafOf, codes };
}

/** The groups above the leaves, from the leaves' codes alone. */
function* levelsOf(keys: readonly GroupCodes[], codes: readonly Int32Array[]): Task<TreeLevel[]> {
  const leaves = codes[0].length;
  const levels: TreeLevel[] = [];
  let above = new Int32Array(leaves);
  for (const [l, key] of keys.entries()) {
    // Every leaf is a group of the deepest level.
    if (l === keys.length - 1) {
      levels.push({ size: leaves, parent: above, code: codes[l] });
      break;
    }
    const parent = new Int32Array(leaves);
    const code = new Int32Array(leaves);
    const groupOf = new Int32Array(leaves);
    const number = new DistinctNumbers(leaves);
    const [own, outer] = [codes[l], above];
    yield* inStretches(leaves, (from, to) => {
      for (let leaf = from; leaf < to; leaf++) {
        const group = number.placeOf(outer[leaf] * (key.size + 1) + own[leaf] + 1);
        // Written anew for each leaf of a group: they are the same for all of them.
        parent[group] = outer[leaf];
        code[group] = own[leaf];
        groupOf[leaf] = group;
      }
    });
    const { size } = number;
    levels.push({ size, parent: parent.slice(0, size), code: code.slice(0, size) });
    above = groupOf;
  }
  return levels;
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
export function* layoutLeaves(tree: GroupTree): Task<LeafLayout> {
  const depth = tree.levels.length;
  if (depth === 0) return { place: new Int32Array(tree.leaves), first: [], end: [] };
  let place = orderRead(tree.levels[0].size);
  for (let l = 1; l < depth; l++) place = yield* childrenPlaced(tree.levels[l], place);
  const first = tree.levels.map((level) => new Int32Array(level.size).fill(tree.leaves));
  const end = tree.levels.map((level) => new Int32Array(level.size));
  for (let l = depth - 1, groupOf = orderRead(tree.leaves); l >= 0; l--) {
    const [firsts, ends, { parent }] = [first[l], end[l], tree.levels[l]];
    yield* inStretches(tree.leaves, (from, to) => {
      for (let leaf = from; leaf < to; leaf++) {
        const group = groupOf[leaf];
        if (place[leaf] < firsts[group]) firsts[group] = place[leaf];
        if (place[leaf] + 1 > ends[group]) ends[group] = place[leaf] + 1;
        groupOf[leaf] = parent[group];
      }
    });
  }
  return { place, first, end };
}

/** The places of a level's groups: by those of their parents, and in their own order within one. */
function* childrenPlaced(
  { parent, size }: TreeLevel,
  above: Int32Array,
): Task<Int32Array<ArrayBuffer>> {
  const next = new Int32Array(above.length + 1);
  yield* inStretches(size, (from, to) => {
    for (let group = from; group < to; group++) next[above[parent[group]] + 1]++;
  });
  yield* addedUp(next);
  const place = new Int32Array(size);
  yield* inStretches(size, (from, to) => {
    for (let group = from; group < to; group++) place[group] = next[above[parent[group]]]++;
  });
  return place;
}

/** The values behind the labels from the first level down to a group. */
export function groupKeys(
  tree: GroupTree,
  level: number,
  group: number,
): (string | number | null)[] {
  const keys: (string | number | null)[] = [];
  for (let l = level, g = group; l >= 0; l--) {
    keys.unshift(tree.keys[l].key(tree.levels[l].code[g]));
    g = tree.levels[l].parent[g];
  }
  return keys;
}

/** Labels from the first level down to a group. */
export function groupPath(tree: GroupTree, level: number, group: number): string[] {
  const labels: string[] = [];
  for (let l = level, g = group; l >= 0; l--) {
    labels.unshift(tree.keys[l].label(tree.levels[l].code[g]));
    g = tree.levels[l].parent[g];
  }
  return labels;
}

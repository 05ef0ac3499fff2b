import { groupPath } from '../../core/arrange/tree';
import { add, emptyBitset, has, type Bitset } from '../../core/table/bitset';
import type { Place } from '../protocol';
import type { Reckoned } from '../reckoning';

/** A figure's whereabouts that the bench no longer has. */
export class NoSuchPlace extends Error {
  override name = 'NoSuchPlace';
}

/** The group behind a path of labels. */
export function groupAt(r: Reckoned, path: readonly string[]): { level: number; group: number } {
  const level = path.length - 1;
  const groups = r.tree.levels[level];
  if (groups)
    for (const group of r.shown.order[level]) {
      const code = groups.code[group];
      if (r.tree.keys[level].label(code) !== path[level]) continue;
      if (groupPath(r.tree, level, group).every((label, l) => label === path[l]))
        return { level, group };
    }
  throw new NoSuchPlace(`There is no group ${path.join(' › ')} in the ledger as it stands.`);
}

/** The records a figure rests on, rising or in the ledger's order, and its value. */
export interface FigureAt {
  readonly value: number;
  readonly records: Int32Array;
  /** All records of its group, whatever the ladder took out. */
  readonly group: Bitset;
  readonly path: readonly string[];
}

export function figureAt(r: Reckoned, place: Place): FigureAt {
  if (!r.spec.measures[place.measure])
    throw new NoSuchPlace('The ledger no longer has this measure.');
  if (place.at === 'foot') {
    const foot = r.foot[place.line];
    const selection =
      place.line === 'all'
        ? r.ladder.all
        : place.line === 'narrowed'
          ? r.ladder.narrowed
          : r.ladder.counted;
    return {
      value: foot.figures[place.measure],
      records: r.order.filter((i) => has(selection, i)),
      group: r.ladder.all,
      path: [],
    };
  }
  const { level, group } = groupAt(r, place.path);
  const rows = r.rows.records.subarray(r.rows.first[level][group], r.rows.end[level][group]);
  return {
    value: r.figures.levels[level][place.measure][group],
    records: rows.filter((i) => has(r.ladder.counted, i)),
    group: membersOfGroup(r, level, group),
    path: place.path,
  };
}

function membersOfGroup(r: Reckoned, level: number, group: number): Bitset {
  const depth = r.tree.levels.length;
  const inGroup = new Uint8Array(r.tree.leaves);
  for (let leaf = 0; leaf < r.tree.leaves; leaf++) {
    let g = leaf;
    for (let l = depth - 1; l > level; l--) g = r.tree.levels[l].parent[g];
    if (g === group) inGroup[leaf] = 1;
  }
  const bits = emptyBitset(r.table.length);
  for (let i = 0; i < r.table.length; i++) if (inGroup[r.tree.leafOf[i]]) add(bits, i);
  return bits;
}

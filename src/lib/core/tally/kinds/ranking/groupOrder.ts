import type { GroupTree } from '../../../arrange/tree';
import { mergedSort } from '../../../sorting/mergedSort';
import { inStretches, type Task } from '../../../task/task';
import type { Bitset } from '../../../table/bitset';
import { orderedFor, recordsOf, type TallyInput } from '../../input/input';
import { computeGroups, type GroupFigures } from '../../groups/groupFigures';
import type { RankingSpec } from './spec';

/** The figure of every group over a selection. */
export function* figuresIn(
  input: TallyInput,
  tree: GroupTree,
  spec: RankingSpec,
  selection: Bitset,
): Task<GroupFigures> {
  const { table } = input;
  const ordered = yield* orderedFor(input, selection, [spec.by]);
  return yield* computeGroups({ table, tree, records: recordsOf(selection), ordered }, [spec.by]);
}

/** The parent that each deepest group is ranked within. */
export function parents(tree: GroupTree, within: number): (group: number) => number {
  if (within === 0) return () => 0;
  return (group) => {
    let g = group;
    for (let l = tree.levels.length - 1; l >= within; l--) g = tree.levels[l].parent[g];
    return g;
  };
}

export interface Ranked {
  readonly order: number[];
  /** Groups with records and no figure. */
  readonly none: number[];
}

/** Groups of each parent from the first place to the last; ties in label order. */
export function* ranked(
  tree: GroupTree,
  level: number,
  values: Float64Array,
  figures: GroupFigures,
  parentOf: (group: number) => number,
  spec: RankingSpec,
): Task<Map<number, Ranked>> {
  const out = new Map<number, Ranked>();
  const { code, size } = tree.levels[level];
  const records = figures.records[level];
  yield* inStretches(size, (from, to) => {
    for (let g = from; g < to; g++) {
      if (records[g] === 0) continue;
      const parent = parentOf(g);
      let entry = out.get(parent);
      if (!entry) out.set(parent, (entry = { order: [], none: [] }));
      if (values[g] === values[g]) entry.order.push(g);
      else entry.none.push(g);
    }
  });
  const sign = spec.from === 'highest' ? -1 : 1;
  const rank = (g: number): number => tree.keys[level].rank(code[g]);
  for (const [parent, { order, none }] of out) {
    const compare = (a: number, b: number): number =>
      sign * (values[a] - values[b]) || rank(a) - rank(b);
    out.set(parent, { order: yield* mergedSort(order, compare), none });
  }
  const labelRank = (parent: number): number =>
    spec.within === 0
      ? 0
      : tree.keys[spec.within - 1].rank(tree.levels[spec.within - 1].code[parent]);
  return new Map([...out].sort(([a], [b]) => labelRank(a) - labelRank(b) || a - b));
}

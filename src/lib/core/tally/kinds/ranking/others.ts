import { groupKeys, groupPath, type GroupTree } from '../../../arrange/tree';
import type { Grouping } from '../../../measure/grouping';
import { filled } from '../../../task/arrays';
import { inStretches, type Task } from '../../../task/task';
import type { Bitset } from '../../../table/bitset';
import { counted } from '../../../table/format';
import { orderedFor, recordsOf, type TallyInput } from '../../input/input';
import { figureFrom, shownColumn } from '../../answer/figure';
import { groupWhere } from '../../groups/keys';
import { marked, shareOf, type FigureRow } from '../../answer/result';
import { computeInfluences, deviationOf, gapsMark } from '../../trust/influence';
import { allOf, noneOf } from '../../spec/whereCondition';
import type { RankingSpec } from './spec';

/** The rest in one line, computed from its records, so that the table still adds up. */
export function* others(
  input: TallyInput,
  tree: GroupTree,
  spec: RankingSpec,
  selection: Bitset,
  {
    left,
    counts,
    out,
    whole,
    shares,
    blank,
    parent,
  }: {
    parent: number;
    left: readonly number[];
    /** Records of each group. */
    counts: ArrayLike<number>;
    /** Groups of the parent that are not among the others: those in places, those without a figure. */
    out: readonly number[];
    whole: number;
    shares: boolean;
    blank: number;
  },
): Task<FigureRow> {
  const { table } = input;
  const deepest = tree.levels.length - 1;
  const rest: Grouping = { size: 1, of: yield* filled(new Int32Array(tree.leaves), -1) };
  let records = 0;
  yield* inStretches(left.length, (from, to) => {
    for (let k = from; k < to; k++) {
      rest.of[left[k]] = 0;
      records += counts[left[k]];
    }
  });
  const { figures, influences } = yield* computeInfluences(
    {
      table,
      records: recordsOf(selection),
      ordered: yield* orderedFor(input, selection, [spec.by]),
      leafOf: tree.leafOf,
      leaves: tree.leaves,
    },
    [rest],
    [spec.by],
  );
  const [[[total]]] = figures;
  const rests = influences.at(0, 0, 0);
  const valueAt = spec.groups.length + 2;
  const labels = spec.groups.map((_, k): string | null =>
    k < spec.within
      ? groupPath(tree, spec.within - 1, parent)[k]
      : k === spec.groups.length - 1
        ? counted(left.length, 'other')
        : null,
  );
  const parents = spec.within > 0 ? groupKeys(tree, spec.within - 1, parent) : [];
  const keys = [null, ...spec.groups.map((_, k) => parents[k] ?? null)];
  return {
    kind: 'others',
    stands: left.length,
    keys,
    level: 0,
    cells: [
      null,
      ...labels,
      records,
      figureFrom(spec.by, shownColumn(spec.by, table), total),
      ...(shares ? [shareOf(total, whole), null] : []),
      ...Array.from({ length: blank }, () => null),
    ],
    ...marked(gapsMark(spec.by, valueAt, rests)),
    ...deviationOf(spec.by, valueAt, rests),
    where:
      allOf([
        spec.within > 0 ? groupWhere(tree, spec.within - 1, parent) : undefined,
        noneOf(out.map((g) => groupWhere(tree, deepest, g))) ?? undefined,
      ]) ?? undefined,
  };
}

import { layLeaves, type GroupTree, type LeafLayout } from '../../arrange/tree';
import { fromMoments, needsSquares } from '../../measure/fromMoments';
import { fromSlice } from '../../measure/fromSlices';
import type { Measure } from '../../measure/measure';
import { Moments, reckonMoments, rollUp } from '../../measure/moments';
import { gather, type Slices } from '../../measure/slices';
import { valuesOf } from '../../measure/valuesOf';
import type { Steps } from '../../steps/steps';
import { isText } from '../../table/column';
import { columnOf, type Table } from '../../table/table';

/** Measures over the groups of every level, and over the whole selection. */
export interface GroupFigures {
  /** `levels[level][measure][group]`; NaN: none. Text measures hold a dictionary code. */
  readonly levels: readonly (readonly Float64Array[])[];
  readonly total: Float64Array;
  /** Records of the selection in each group: `records[level][group]`. */
  readonly records: readonly Float64Array[];
}

/** What reckoning needs besides the measures. */
export interface Grouped {
  readonly table: Table;
  readonly tree: GroupTree;
  /** The selection, as rising record numbers. */
  readonly records: Int32Array;
  /** The same in the order of the ledger; `first` and `last` look at it. */
  readonly ordered: Int32Array;
}

/** Reckons every measure from the records; a parent's figure never comes from its subtotals' figures. */
export function* reckonGroups(grouped: Grouped, measures: readonly Measure[]): Steps<GroupFigures> {
  const { tree, records } = grouped;
  const depth = tree.levels.length;
  const counts = countLevels(tree, records);
  const levels: Float64Array[][] = tree.levels.map(() => []);
  const total = new Float64Array(measures.length);
  const layout = layLeaves(tree);
  const shared = new Map<string, Moments[]>();
  for (let k = 0; k < measures.length; k++) {
    const measure = measures[k];
    const figures = yield* reckonMeasure(grouped, measure, { layout, counts, shared });
    for (let l = 0; l < depth; l++) levels[l].push(figures.levels[l]);
    total[k] = figures.total;
    yield (k + 1) / measures.length;
  }
  return { levels, total, records: counts.slice(1) };
}

interface Shared {
  readonly layout: LeafLayout;
  /** Records by group for the root (0) and each level (1..). */
  readonly counts: readonly Float64Array[];
  /** Moments by column, for the root and each level. */
  readonly shared: Map<string, Moments[]>;
}

interface MeasureFigures {
  levels: Float64Array[];
  total: number;
}

function countLevels(tree: GroupTree, records: Int32Array): Float64Array[] {
  const depth = tree.levels.length;
  const counts: Float64Array[] = new Array(depth + 1);
  const leaf = new Float64Array(tree.leaves);
  for (let k = 0; k < records.length; k++) leaf[tree.leafOf[records[k]]]++;
  counts[depth] = leaf;
  for (let l = depth - 1; l >= 0; l--) {
    counts[l] = new Float64Array(l === 0 ? 1 : tree.levels[l - 1].size);
    const { parent } = tree.levels[l];
    counts[l + 1].forEach((n, g) => (counts[l][parent[g]] += n));
  }
  return counts;
}

function* reckonMeasure(grouped: Grouped, measure: Measure, ready: Shared): Steps<MeasureFigures> {
  const { tree } = grouped;
  const { counts } = ready;
  const spread = (of: (level: number, group: number) => number): MeasureFigures => ({
    levels: tree.levels.map((level, l) =>
      Float64Array.from({ length: level.size }, (_, g) => of(l + 1, g)),
    ),
    total: of(0, 0),
  });
  const parentOf = (level: number, group: number): number =>
    level > 0 ? tree.levels[level - 1].parent[group] : 0;

  if (measure.kind === 'recordsOfTotal')
    return spread((level, group) => ratio(counts[level][group], counts[0][0]));
  if (measure.kind === 'recordsOfParent')
    return spread((level, group) =>
      ratio(
        counts[level][group],
        counts[Math.max(0, level - 1)][level > 0 ? parentOf(level, group) : 0],
      ),
    );
  if (measure.kind === 'records' || measure.column === undefined)
    return spread((level, group) => counts[level][group]);
  if (measure.kind === 'first' || measure.kind === 'last') return edgeValues(grouped, measure);

  const moments = momentsOf(grouped, measure, ready);
  yield undefined;
  switch (measure.kind) {
    case 'blanks':
    case 'unread':
      return missing(grouped, measure, spread, moments, counts);
    case 'shareOfTotal':
      return spread((level, group) => ratio(moments[level].sum(group), moments[0].sum(0)));
    case 'shareOfParent':
      return spread((level, group) =>
        level === 0
          ? ratio(moments[0].sum(0), moments[0].sum(0))
          : ratio(moments[level].sum(group), moments[level - 1].sum(parentOf(level, group))),
      );
  }
  if (fromMoments(measure.kind, moments[0], 0) !== null)
    return spread((level, group) => fromMoments(measure.kind, moments[level], group) ?? NaN);
  return bySlices(grouped, measure, ready.layout);
}

const ratio = (a: number, b: number): number => (b === 0 ? NaN : a / b);

/** Moments of a column at the root and every level, merged upward; shared by its measures. */
function momentsOf(
  { table, tree, records }: Grouped,
  measure: Measure,
  { shared }: Shared,
): Moments[] {
  const id = measure.column ?? '';
  const squares = needsSquares(measure.kind);
  const known = shared.get(`${id}\n${squares}`) ?? shared.get(`${id}\ntrue`);
  if (known) return known;
  const { values } = valuesOf(columnOf(table, id));
  const depth = tree.levels.length;
  const out: Moments[] = new Array(depth + 1);
  out[depth] = reckonMoments(values, tree.leafOf, tree.leaves, records, squares);
  for (let l = depth - 1; l >= 0; l--)
    out[l] = rollUp(out[l + 1], tree.levels[l].parent, l === 0 ? 1 : tree.levels[l - 1].size);
  shared.set(`${id}\n${squares}`, out);
  return out;
}

function missing(
  { table, tree, records }: Grouped,
  measure: Measure,
  spread: (of: (level: number, group: number) => number) => MeasureFigures,
  moments: readonly Moments[],
  counts: readonly Float64Array[],
): MeasureFigures {
  const column = columnOf(table, measure.column ?? '');
  const unread = tree.levels.map((level) => new Float64Array(level.size));
  let all = 0;
  if (!isText(column) && column.unread.size > 0)
    for (const i of records) {
      if (!column.unread.has(i)) continue;
      all++;
      for (
        let l = tree.levels.length - 1, g = tree.leafOf[i];
        l >= 0;
        g = tree.levels[l].parent[g], l--
      )
        unread[l][g]++;
    }
  return spread((level, group) => {
    const notRead = level === 0 ? all : unread[level - 1][group];
    return measure.kind === 'unread'
      ? notRead
      : counts[level][group] - moments[level].count(group) - notRead;
  });
}

/** Measures that need the values themselves: gathered once by leaf, deepest level reckoned first. */
function bySlices(
  { table, tree, records }: Grouped,
  measure: Measure,
  { place, first, end }: LeafLayout,
): MeasureFigures {
  const column = columnOf(table, measure.column ?? '');
  const view = valuesOf(column);
  const placed = new Int32Array(tree.leafOf.length);
  for (let i = 0; i < placed.length; i++) placed[i] = place[tree.leafOf[i]];
  const slices: Slices = gather(view.values, placed, tree.leaves, records);
  const decode = (v: number): number =>
    view.codeOf && measure.kind !== 'distinct' && v === v ? view.codeOf(v) : v;
  const levels: Float64Array[] = new Array(tree.levels.length);
  for (let l = tree.levels.length - 1; l >= 0; l--)
    levels[l] = Float64Array.from({ length: tree.levels[l].size }, (_, g) =>
      decode(fromSlice(measure, slices.values, slices.start[first[l][g]], slices.start[end[l][g]])),
    );
  return { levels, total: decode(fromSlice(measure, slices.values, 0, slices.values.length)) };
}

/** The first or last value that is there, in the order of the ledger. */
function edgeValues(
  { table, tree, ordered }: Grouped,
  { kind, column: id }: Measure,
): MeasureFigures {
  const column = columnOf(table, id ?? '');
  const levels = tree.levels.map((level) => new Float64Array(level.size).fill(NaN));
  let total = NaN;
  const step = kind === 'first' ? 1 : -1;
  for (let k = kind === 'first' ? 0 : ordered.length - 1; k >= 0 && k < ordered.length; k += step) {
    const i = ordered[k];
    const v = isText(column) ? (column.codes[i] < 0 ? NaN : column.codes[i]) : column.values[i];
    if (v !== v) continue;
    if (total !== total) total = v;
    for (
      let l = tree.levels.length - 1, g = tree.leafOf[i];
      l >= 0;
      g = tree.levels[l].parent[g], l--
    ) {
      if (levels[l][g] === levels[l][g]) break;
      levels[l][g] = v;
    }
  }
  return { levels, total };
}

import { sortByColumn } from '../../../arrange/sort';
import { groupKeys, groupPath, type GroupTree } from '../../../arrange/tree';
import { TallyRefused } from '../../../errors';
import { columnFor } from '../../../expression/columnFor';
import { addedUp } from '../../../task/arrays';
import { finish, inStretches, partOf, STRIDE, type Task } from '../../../task/task';
import { count, has, type Bitset } from '../../../table/bitset';
import { fullCell } from '../../../table/cell';
import { isMissing, isText, type ScalarColumn } from '../../../table/column';
import { counted } from '../../../table/format';
import { recordNumber } from '../../../table/recordNumber';
import { recordTable } from '../../answer/answer';
import { recordsOf, selectionOf, type TallyInput } from '../../input/input';
import { cellFigure, labelColumns } from '../../answer/figure';
import { groupWhere, treeOf } from '../../groups/keys';
import type { TallyAnswer } from '../../kind/kind';
import { figureOf, shareOf, type FigureRow } from '../../answer/result';
import { orderGroups, walkGroups } from '../../groups/sortedGroups';
import { allOf } from '../../spec/whereCondition';
import { downTo } from './downTo';
import { placesOf, withinTop } from './places';
import { beyond, columnsOf, cumulative, notes, withinBottom } from './records';
import type { RankingSpec } from './spec';

/** The records of one group in order of their places, and which of them are kept. */
interface Ranked {
  readonly leaf: number;
  readonly order: Int32Array;
  /** Found when the first row of the group is looked at, unless it is large. */
  readonly places: Later<Float64Array>;
  /** Sums from the group's first place to each; found likewise. */
  readonly sums: Later<Float64Array>;
  readonly from: number;
  readonly to: number;
  /** Its first row in the table. */
  readonly row: number;
}

/**
 * Every record with a value in its place among those of its group, group after group in their order;
 * or the first or last of each group, and its others in one row.
 */
export function* rankRecordsWithin(input: TallyInput, spec: RankingSpec): Task<TallyAnswer> {
  const { table } = input;
  const column = columnFor(table, spec.by.column ?? '');
  if (isText(column)) throw new TallyRefused(`“${column.name}” is text and cannot be ranked.`);
  const selection = selectionOf(input, spec.scope);
  const { tree, warnings: ofKeys } = yield* treeOf(input, spec.groups, selection);
  const descending = spec.from === 'highest';
  const sorting = sortByColumn(column, { descending, blanks: 'last' }, input.order);
  const sorted = yield* partOf(sorting, 0.1, 0.9);
  const orders = yield* dealt(tree, sorted.order, column.values, selection);
  const present = orders.reduce((n, order) => n + order.length, 0);
  const groups = yield* rankedIn(tree, spec, column, orders);
  const length = groups.reduce((n, g) => n + rowsOf(g), 0);
  const shown = spec.show.map((ref) => columnFor(table, ref));
  const depth = tree.levels.length;
  const adds = column.type === 'number';
  const labels = 2 + depth + shown.length;
  const [place, record, ...rest] = columnsOf(spec, column, shown, 'run');
  /** The place of a row in the order of its group; where it is `to`, the row is of all others. */
  const placeOf = (n: number, { from, row }: Ranked): number => from + n - row;
  const rowAt = (n: number): FigureRow => {
    const group = groups[groupAt(groups, n)];
    const k = placeOf(n, group);
    return k < group.to ? rankedRow(group, k) : othersRow(group);
  };
  const rankedRow = (group: Ranked, k: number): FigureRow => {
    const { leaf, order } = group;
    const [places, sums] = [group.places.value, group.sums.value];
    const i = order[k];
    const total = sums[sums.length - 1];
    const cells = shown.map((c) => (isMissing(c, i) ? null : fullCell(c, i)));
    return {
      kind: 'group',
      level: 0,
      cells: [
        places[k],
        ...groupPath(tree, depth - 1, leaf),
        recordNumber(i),
        ...cells,
        cellFigure(column, i),
        ...(adds ? [shareOf(column.values[i], total), shareOf(sums[k], total)] : []),
      ],
      keys: [places[k], ...groupKeys(tree, depth - 1, leaf), recordNumber(i), ...cells],
      where: { kind: 'records', not: false, records: [recordNumber(i)] },
      run: leaf,
    };
  };
  const othersRow = (group: Ranked): FigureRow => {
    const { leaf, order, from, to } = group;
    const sums = group.sums.value;
    const left = order.length - (to - from);
    const total = sums[sums.length - 1];
    const kept = to > from ? sums[to - 1] - (from ? sums[from - 1] : 0) : 0;
    const edge = order[spec.bottom === undefined ? to - 1 : from];
    return {
      kind: 'others',
      stands: left,
      level: 0,
      cells: [
        null,
        ...groupPath(tree, depth - 1, leaf),
        counted(left, 'other record'),
        ...shown.map(() => null),
        adds ? figureOf(total - kept) : null,
        ...(adds ? [shareOf(total - kept, total), null] : []),
      ],
      keys: [null, ...groupKeys(tree, depth - 1, leaf), null, ...shown.map(() => null)],
      where: allOf([groupWhere(tree, depth - 1, leaf), beyond(spec, column, edge)]) ?? undefined,
      run: leaf,
    };
  };
  return {
    tables: [
      recordTable(
        {
          name: 'main',
          caption: 'Ranking',
          labels,
          whole: true,
          columns: [place, ...labelColumns(spec.groups, tree.keys, table), record, ...rest],
        },
        {
          length,
          row: rowAt,
          recordAt(n) {
            const group = groups[groupAt(groups, n)];
            const k = placeOf(n, group);
            return k < group.to ? group.order[k] : -1;
          },
          rowOf(record) {
            const group = groups.find(({ leaf }) => leaf === tree.leafOf[record]);
            if (!group) return -1;
            const at = group.order.subarray(group.from, group.to).indexOf(record);
            return at < 0 ? -1 : group.row + at;
          },
          *carried(n) {
            const group = groups[groupAt(groups, n)];
            const { leaf, order, to } = group;
            const k = placeOf(n, group);
            if (k >= to) return null;
            const { where, ...reached } = yield* downTo(spec, column, order, k);
            return {
              ...reached,
              where: where && allOf([groupWhere(tree, depth - 1, leaf), where]),
            };
          },
        },
      ),
    ],
    warnings: [
      ...ofKeys,
      ...notes(
        recordsOf(selection).length - present,
        spec,
        groups.reduce((most, g) => Math.max(most, g.to - g.from), 0),
      ),
    ],
  };
}

const rowsOf = ({ order, from, to }: Pick<Ranked, 'order' | 'from' | 'to'>): number =>
  to - from + Number(order.length > to - from);

/** The group that a row is of: the last that begins at it or before. */
function groupAt(groups: readonly Ranked[], row: number): number {
  let low = 0;
  let high = groups.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (groups[middle].row <= row) low = middle;
    else high = middle - 1;
  }
  return low;
}

/**
 * Sorted records dealt to their groups, those of each in the order they come; without those that
 * have no value or are not in the selection. Counted in the order read, which memory likes best.
 */
function* dealt(
  { leafOf, leaves }: GroupTree,
  sorted: Int32Array,
  values: Float64Array,
  selection: Bitset,
): Task<Int32Array[]> {
  const all = count(selection) === values.length;
  const start = new Int32Array(leaves + 1);
  yield* inStretches(values.length, (from, to) => {
    for (let i = from; i < to; i++)
      if (values[i] === values[i] && (all || has(selection, i))) start[leafOf[i] + 1]++;
  });
  yield* addedUp(start);
  const order = new Int32Array(start[leaves]);
  const next = start.slice();
  yield* inStretches(sorted.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const i = sorted[k];
      // Records without a value come last.
      if (values[i] !== values[i]) return;
      if (all || has(selection, i)) order[next[leafOf[i]]++] = i;
    }
  });
  const parts: Int32Array[] = [];
  yield* inStretches(leaves, (from, to) => {
    for (let leaf = from; leaf < to; leaf++)
      parts.push(order.subarray(start[leaf], start[leaf + 1]));
  });
  return parts;
}

function* rankedIn(
  tree: GroupTree,
  spec: RankingSpec,
  { values }: ScalarColumn,
  orders: readonly Int32Array[],
): Task<Ranked[]> {
  const deepest = tree.levels.length - 1;
  const counts = tree.levels.map((level) => new Float64Array(level.size));
  yield* inStretches(orders.length, (from, to) => {
    for (let leaf = from; leaf < to; leaf++)
      for (let l = deepest, g = leaf; l >= 0; l--) {
        counts[l][g] += orders[leaf].length;
        g = tree.levels[l].parent[g];
      }
  });
  const leaves: number[] = [];
  const shown = yield* orderGroups(
    tree,
    spec.groups.map((key) => key.order),
    counts.map((records) => ({ records, measures: [] })),
  );
  yield* walkGroups(shown, (level, group) => {
    if (level === deepest) leaves.push(group);
  });
  const out: Ranked[] = [];
  let row = 0;
  const rankedAs = (leaf: number): Ranked => {
    const order = orders[leaf];
    return {
      leaf,
      order,
      places: new Later(() => placesOf(values, order, spec.ties)),
      sums: new Later(() => cumulative(values, order)),
      from: spec.bottom === undefined ? 0 : order.length - withinBottom(values, order, spec.bottom),
      to: spec.top === undefined ? order.length : withinTop(values, order, spec.top),
      row,
    };
  };
  yield* inStretches(
    leaves.length,
    (from, to) => {
      for (let k = from; k < to; k++) {
        const group = rankedAs(leaves[k]);
        out.push(group);
        row += rowsOf(group);
      }
    },
    GROUPS,
  );
  for (const { order, places, sums } of out)
    if (order.length > MANY) {
      yield* places.found();
      yield* sums.found();
    }
  return out;
}

/** Groups made between two pauses: each is an object of its own. */
const GROUPS = 1024;

/** Of more records than this what follows is found beforehand: a row could not wait for it. */
const MANY = STRIDE >> 3;

/** What is found when it is first asked for, and kept. */
class Later<T> {
  #known: T | undefined;

  constructor(readonly find: () => Task<T>) {}

  *found(): Task<T> {
    return (this.#known ??= yield* this.find());
  }

  get value(): T {
    return (this.#known ??= finish(this.find()));
  }
}

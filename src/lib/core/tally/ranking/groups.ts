import { TallyRefused } from '../../errors';
import { periodCondition } from '../series';
import { groupKeys, groupPath, type GroupTree } from '../../arrange/tree';
import { computeMeasures } from '../../measure/compute';
import type { Grouping } from '../../measure/grouping';
import { columnFor } from '../../expression/columnFor';
import { MEASURES } from '../../measure/measure';
import { evaluate } from '../../scope/evaluate';
import type { Steps } from '../../steps/steps';
import { and, type Bitset } from '../../table/bitset';
import { DAY_MS, dayOfIso } from '../../table/calendar';
import { isText } from '../../table/column';
import { counted } from '../../table/format';
import { periodLabel, periodOf, USUAL_CALENDAR } from '../../table/period';
import { tableOf } from '../answer';
import { recordsOf, selectionOf, type Base, orderedFor } from '../base';
import { figureFrom, measureColumns, shownColumn, labelColumns, RECORDS_COLUMN } from '../figure';
import { groupWhere, treeOf } from '../keys';
import { type TallyAnswer } from '../kind';
import { computeGroups, type GroupFigures } from '../groupFigures';
import { type FigureColumn, type FigureRow, shareOf } from '../result';
import { allOf, noneOf } from '../whereCondition';
import { warn, type Warning } from '../warnings';
import { placesOf, withinTop } from './places';
import { withinBottom } from './records';
import type { RankingSpec } from './spec';

/** Groups in places, overall or within their parents. */
export function* rankGroups(base: Base, spec: RankingSpec): Steps<TallyAnswer> {
  const { table } = base;
  const selection = selectionOf(base, spec.scope);
  const records = recordsOf(selection);
  const { tree, warnings: ofKeys } = treeOf(base, spec.groups, selection);
  yield undefined;
  const deepest = tree.levels.length - 1;
  const figures = yield* figuresIn(base, tree, spec, selection);
  const values = figures.levels[deepest][0];
  const parentOf = parents(tree, spec.within);
  const byParent = ranked(tree, deepest, values, figures, parentOf, spec);
  const change = spec.change ? yield* changes(base, tree, spec, selection, parentOf) : null;
  const shown = shownColumn(spec.by, table);
  const shares = MEASURES[spec.by.kind].adds;
  const rows: FigureRow[] = [];
  const warnings: Warning[] = ofKeys;
  let [unranked, kept] = [0, 0];
  for (const [parent, { order, none }] of byParent) {
    unranked += none.length;
    const places = placesOf(values, order, spec.ties);
    const from =
      spec.bottom === undefined ? 0 : order.length - withinBottom(values, order, spec.bottom);
    const to = spec.top === undefined ? order.length : withinTop(values, order, spec.top);
    kept = Math.max(kept, to - from);
    const whole = order.reduce((s, g) => s + values[g], 0);
    let cumulative = 0;
    order.forEach((g, k) => {
      cumulative += values[g];
      if (k < from || k >= to) return;
      rows.push({
        kind: 'group',
        level: 0,
        cells: [
          places[k],
          ...groupPath(tree, deepest, g),
          figures.records[deepest][g],
          figureFrom(spec.by, shown, values[g]),
          ...(shares ? [shareOf(values[g], whole), shareOf(cumulative, whole)] : []),
          ...(change ? change.cells(g) : []),
        ],
        keys: [places[k], ...groupKeys(tree, deepest, g)],
        where: groupWhere(tree, deepest, g),
      });
    });
    const left = [...order.slice(0, from), ...order.slice(to)];
    if (left.length)
      rows.push(
        yield* others(base, tree, spec, selection, {
          parent,
          left,
          counts: figures.records[deepest],
          out: [...order.slice(from, to), ...none],
          whole,
          shares,
          blank: change ? 3 : 0,
        }),
      );
  }
  if (unranked > 0)
    warnings.push(
      warn(
        'not-ranked',
        `${counted(unranked, 'group')} without a figure ${unranked === 1 ? 'is' : 'are'} not ranked.`,
      ),
    );
  const asked = spec.top ?? spec.bottom;
  if (asked !== undefined && kept > asked)
    warnings.push(warn('tie-at-edge', `A tie at the edge is kept: ${kept} instead of ${asked}.`));
  const columns: FigureColumn[] = [
    { key: 'place', title: 'Place', unit: '', type: 'rank', says: 'The place by this figure.' },
    ...labelColumns(spec.groups, tree.keys, table),
    { ...RECORDS_COLUMN, adds: undefined },
    { ...measureColumns([spec.by], table, records)[0], adds: undefined },
    ...(shares
      ? [
          {
            key: 'share',
            title: 'Share',
            unit: '',
            type: 'share' as const,
            says: 'The figure ÷ the sum of all ranked.',
          },
          {
            key: 'cumulativeShare',
            title: 'Cumulative share',
            unit: '',
            type: 'share' as const,
            reach: 'above' as const,
            says: 'The figures down to this one ÷ the sum of all ranked.',
          },
        ]
      : []),
    ...(change?.columns ?? []),
  ];
  return {
    tables: [
      tableOf({
        name: 'main',
        caption: 'Ranking',
        labels: 1 + spec.groups.length,
        whole: true,
        columns,
        rows,
      }),
    ],
    warnings,
  };
}

function* figuresIn(
  base: Base,
  tree: GroupTree,
  spec: RankingSpec,
  selection: Bitset,
): Steps<GroupFigures> {
  const { table } = base;
  const ordered = orderedFor(base, selection, [spec.by]);
  return yield* computeGroups({ table, tree, records: recordsOf(selection), ordered }, [spec.by]);
}

/** The parent that each deepest group is ranked within. */
function parents(tree: GroupTree, within: number): (group: number) => number {
  if (within === 0) return () => 0;
  return (group) => {
    let g = group;
    for (let l = tree.levels.length - 1; l >= within; l--) g = tree.levels[l].parent[g];
    return g;
  };
}

interface Ranked {
  readonly order: number[];
  /** Groups with records and no figure. */
  readonly none: number[];
}

/** Groups of each parent from the first place to the last; ties in label order. */
function ranked(
  tree: GroupTree,
  level: number,
  values: Float64Array,
  figures: GroupFigures,
  parentOf: (group: number) => number,
  spec: RankingSpec,
): Map<number, Ranked> {
  const out = new Map<number, Ranked>();
  const { code, size } = tree.levels[level];
  for (let g = 0; g < size; g++) {
    if (figures.records[level][g] === 0) continue;
    const parent = parentOf(g);
    let entry = out.get(parent);
    if (!entry) out.set(parent, (entry = { order: [], none: [] }));
    if (values[g] === values[g]) entry.order.push(g);
    else entry.none.push(g);
  }
  const sign = spec.from === 'highest' ? -1 : 1;
  const rank = (g: number): number => tree.keys[level].rank(code[g]);
  for (const { order } of out.values())
    order.sort((a, b) => sign * (values[a] - values[b]) || rank(a) - rank(b));
  const labelRank = (parent: number): number =>
    spec.within === 0
      ? 0
      : tree.keys[spec.within - 1].rank(tree.levels[spec.within - 1].code[parent]);
  return new Map([...out].sort(([a], [b]) => labelRank(a) - labelRank(b) || a - b));
}

/** The rest in one line, reckoned from its records, so that the table still adds up. */
function* others(
  base: Base,
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
): Steps<FigureRow> {
  const { table } = base;
  const deepest = tree.levels.length - 1;
  const rest: Grouping = { size: 1, of: new Int32Array(tree.leaves).fill(-1) };
  for (const g of left) rest.of[g] = 0;
  const records = left.reduce((n, g) => n + counts[g], 0);
  const [[[total]]] = yield* computeMeasures(
    {
      table,
      records: recordsOf(selection),
      ordered: orderedFor(base, selection, [spec.by]),
      leafOf: tree.leafOf,
      leaves: tree.leaves,
    },
    [rest],
    [spec.by],
  );
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
    where:
      allOf([
        spec.within > 0 ? groupWhere(tree, spec.within - 1, parent) : undefined,
        noneOf(out.map((g) => groupWhere(tree, deepest, g))) ?? undefined,
      ]) ?? undefined,
  };
}

interface Change {
  readonly columns: FigureColumn[];
  cells(group: number): (number | null)[];
}

/** Places in two periods: those that days name, or the last two that are counted. */
function* changes(
  base: Base,
  tree: GroupTree,
  spec: RankingSpec,
  selection: Bitset,
  parentOf: (group: number) => number,
): Steps<Change> {
  const { change } = spec;
  if (!change) return { columns: [], cells: () => [] };
  const column = columnFor(base.table, change.column);
  if (isText(column)) throw new TallyRefused(`“${column.name}” is not a date.`);
  const perDay = column.type === 'datetime' ? DAY_MS : 1;
  const { period, calendar } = change;
  let latest = -Infinity;
  for (const i of recordsOf(selection)) if (column.values[i] > latest) latest = column.values[i];
  const named = (day: string | undefined, other: number): number =>
    day === undefined ? other : periodOf(dayOfIso(day), period, calendar);
  const after = named(change.after, periodOf(Math.floor(latest / perDay), period, calendar));
  const before = named(change.before, after - 1);
  const places: Map<number, number>[] = [];
  for (const index of [before, after]) {
    const condition = periodCondition(change.column, index, period, calendar ?? USUAL_CALENDAR);
    const within =
      latest === -Infinity
        ? selection
        : and(selection, evaluate(base.table, condition, selection).yes);
    const figures = yield* figuresIn(base, tree, spec, within);
    const level = tree.levels.length - 1;
    const values = figures.levels[level][0];
    const map = new Map<number, number>();
    for (const { order } of ranked(tree, level, values, figures, parentOf, spec).values()) {
      const at = placesOf(values, order, spec.ties);
      order.forEach((g, k) => map.set(g, at[k]));
    }
    places.push(map);
  }
  const [was, is] = places;
  const label = (index: number): string =>
    Number.isFinite(index) ? periodLabel(index, period, calendar) : '';
  return {
    columns: [
      { key: 'placeBefore', title: `Place in ${label(before)}`, unit: '', type: 'rank' },
      { key: 'placeAfter', title: `Place in ${label(after)}`, unit: '', type: 'rank' },
      {
        key: 'placeChange',
        title: 'Places gained',
        unit: '',
        type: 'number',
        decimals: 0,
        says: 'Place before − place after; none where one of them is missing.',
      },
    ],
    cells(g) {
      const [a, b] = [was.get(g) ?? null, is.get(g) ?? null];
      return [a, b, a === null || b === null ? null : a - b];
    },
  };
}

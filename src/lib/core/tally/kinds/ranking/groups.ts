import { groupKeys, groupPath } from '../../../arrange/tree';
import { MEASURES } from '../../../measure/measure';
import type { Task } from '../../../task/task';
import { counted } from '../../../table/format';
import { madeRows, tableOf } from '../../answer/answer';
import { recordsOf, selectionOf, type TallyInput } from '../../input/input';
import {
  figureFrom,
  labelColumns,
  measureColumns,
  RECORDS_COLUMN,
  shownColumn,
} from '../../answer/figure';
import { groupWhere, treeOf } from '../../groups/keys';
import type { TallyAnswer } from '../../kind/kind';
import { deviationsOf, influenceMarks, shareRestsMark } from '../../trust/influence';
import { marked, shareOf, type FigureColumn, type FigureRow, type Mark } from '../../answer/result';
import { warn, type Warning } from '../../trust/warnings';
import { changes } from './change';
import { figuresIn, parents, ranked } from './groupOrder';
import { others } from './others';
import { placeMark } from './placeMark';
import { placesOf, withinTop } from './places';
import { carriedFromLeaves } from '../../groups/carriedFrom';
import { withinBottom } from './records';
import type { RankingSpec } from './spec';

/** Groups in places, overall or within their parents. */
export function* rankGroups(input: TallyInput, spec: RankingSpec): Task<TallyAnswer> {
  const { table } = input;
  const selection = selectionOf(input, spec.scope);
  const records = recordsOf(selection);
  const { tree, warnings: ofKeys } = yield* treeOf(input, spec.groups, selection);
  const deepest = tree.levels.length - 1;
  const figures = yield* figuresIn(input, tree, spec, selection);
  const values = figures.levels[deepest][0];
  const parentOf = parents(tree, spec.within);
  const byParent = yield* ranked(tree, deepest, values, figures, parentOf, spec);
  const change = spec.change ? yield* changes(input, tree, spec, selection, parentOf) : null;
  const shown = shownColumn(spec.by, table);
  const shares = MEASURES[spec.by.kind].adds;
  const columns: FigureColumn[] = [
    { key: 'place', title: 'Place', unit: '', type: 'rank', words: 'The place by this figure.' },
    ...labelColumns(spec.groups, tree.keys, table),
    { ...RECORDS_COLUMN, adds: undefined },
    { ...(yield* measureColumns([spec.by], table, records))[0], adds: undefined },
    ...(shares
      ? [
          {
            key: 'share',
            title: 'Share',
            unit: '',
            type: 'share' as const,
            words: 'The figure ÷ the sum of all ranked.',
          },
          {
            key: 'cumulativeShare',
            title: 'Cumulative share',
            unit: '',
            type: 'share' as const,
            reach: spec.within > 0 ? ('run' as const) : ('above' as const),
            words: 'The figures down to this one ÷ the sum of all ranked.',
          },
        ]
      : []),
    ...(change?.columns ?? []),
  ];
  const valueAt = columns.findIndex((c) => c.key === 'm1');
  /** The figure where one record carries it, and the place where it does. */
  const marksOf = (g: number, order: readonly number[], whole: number): Mark[] => {
    const rests = figures.influences.at(deepest + 1, 0, g);
    return [
      ...placeMark(table, columns[valueAt], rests, values, g, order, spec.from),
      ...influenceMarks(table, columns[valueAt], valueAt, rests),
      ...(shares
        ? shareRestsMark(table, columns[valueAt], columns[valueAt + 1], valueAt + 1, rests, whole)
        : []),
      ...(change ? change.marks(g, columns.length - change.columns.length) : []),
    ];
  };
  const rows: FigureRow[] = [];
  const warnings: Warning[] = ofKeys;
  let groups = 0;
  /** The ranked groups of each row, in order from the first place, and the row's place among them. */
  const reached: { order: readonly number[]; row: number; from: number; to: number }[] = [];
  let unranked = 0;
  let kept = 0;
  for (const [parent, { order, none }] of byParent) {
    unranked += none.length;
    const places = yield* placesOf(values, order, spec.ties);
    const from =
      spec.bottom === undefined ? 0 : order.length - withinBottom(values, order, spec.bottom);
    const to = spec.top === undefined ? order.length : withinTop(values, order, spec.top);
    kept = Math.max(kept, to - from);
    const whole = order.reduce((s, g) => s + values[g], 0);
    let cumulative = 0;
    const add = (g: number, k: number): FigureRow | [] => {
      cumulative += values[g];
      if (k < from) return [];
      return {
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
        ...(spec.within > 0 && { run: parent }),
        ...marked(marksOf(g, order, whole)),
        ...deviationsOf(columns, [[valueAt, figures.influences.at(deepest + 1, 0, g)]]),
      };
    };
    reached.push({ order, row: rows.length, from, to });
    groups += to - from;
    yield* madeRows(order.slice(0, to), add, rows);
    const left = [...order.slice(0, from), ...order.slice(to)];
    if (left.length)
      rows.push(
        yield* others(input, tree, spec, selection, {
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
  return {
    tables: [
      {
        ...tableOf({
          name: 'main',
          caption: 'Ranking',
          labels: 1 + spec.groups.length,
          whole: true,
          columns,
          rows,
        }),
        groups,
        *carried(n) {
          const of = reached.findLast(({ row }) => row <= n);
          const place = of ? of.from + n - of.row : 0;
          if (!of || place >= of.to) return null;
          return yield* carriedFromLeaves(tree, of.order.slice(0, place + 1), (leaf) =>
            groupWhere(tree, deepest, leaf),
          );
        },
      },
    ],
    warnings,
  };
}

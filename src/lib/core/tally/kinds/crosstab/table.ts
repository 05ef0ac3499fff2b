import { MEASURES } from '../../../measure/measure';
import type { Task } from '../../../task/task';
import { counted } from '../../../table/format';
import type { AnswerTable } from '../../answer/answer';
import type { TallyInput } from '../../input/input';
import { figureFrom, shownColumn } from '../../answer/figure';
import { GroupWalk } from '../../groups/groupWalk';
import {
  marked,
  shareOf,
  type Figure,
  type FigureColumn,
  type FigureRow,
  type Mark,
} from '../../answer/result';
import {
  deviationsOf,
  influenceMarks,
  shareRestsMark,
  type Influence,
} from '../../trust/influence';
import type { CrossFigures } from './figures';
import type { CrosstabSpec } from './spec';

/** What stands under one group across: its place among the levels, and its first column. */
export interface Across {
  readonly level: number;
  readonly group: number;
  readonly first: number;
}

/** The shares asked for of a measure; none of one that does not add up. */
export const sharesOf = (spec: CrosstabSpec, measure: number): CrosstabSpec['shares'] =>
  MEASURES[spec.measures[measure].kind].adds ? spec.shares : [];

/** What a column under each group across shows: the count, a measure, or a share of one. */
type Part =
  | { readonly of: 'count' }
  | { readonly of: 'measure'; readonly k: number }
  | { readonly of: 'share'; readonly k: number; readonly share: CrosstabSpec['shares'][number] };

/** In the order of `ownColumns`. */
const partsOf = (spec: CrosstabSpec): Part[] => [
  ...(spec.count ? [{ of: 'count' } as const] : []),
  ...spec.measures.flatMap((_, k): Part[] => [
    { of: 'measure', k },
    ...sharesOf(spec, k).map((share): Part => ({ of: 'share', k, share })),
  ]),
];

/** The table, its rows made when they are asked for: they may be as many as there are groups. */
export function* crossTable(
  spec: CrosstabSpec,
  input: TallyInput,
  cross: CrossFigures,
  { columns, groups }: { columns: readonly FigureColumn[]; groups: readonly Across[] },
  labels: number,
): Task<AnswerTable> {
  const { down } = cross;
  const shown = spec.measures.map((m) => shownColumn(m, input.table));
  const parts = partsOf(spec);
  const whole: Across = groups[groups.length - 1];
  const walk = yield* GroupWalk.of(
    down,
    spec.down.map((key) => key.order),
    down.levels.map((_, l) => ({
      records: cross.records[l + 1][0],
      measures: cross.figures[l + 1][0],
    })),
  );
  const value = (i: number, g: number, { level, group }: Across, k: number): number =>
    cross.figures[i][level][k][g * cross.widths[level] + group];
  const count = (i: number, g: number, { level, group }: Across): number =>
    cross.records[i][level][g * cross.widths[level] + group];
  const divisor = (i: number, g: number, across: Across, part: Part & { of: 'share' }): number =>
    part.share === 'row'
      ? value(i, g, whole, part.k)
      : part.share === 'column'
        ? value(0, 0, across, part.k)
        : value(0, 0, whole, part.k);
  const cellAt = (i: number, g: number, across: Across, part: Part): Figure => {
    if (part.of === 'count') return count(i, g, across);
    const v = value(i, g, across, part.k);
    return part.of === 'share'
      ? shareOf(v, divisor(i, g, across, part))
      : figureFrom(spec.measures[part.k], shown[part.k], v);
  };
  const restsAt = (i: number, g: number, across: Across, part: Part): Influence | null =>
    part.of === 'count'
      ? null
      : cross.influences.at(
          i * cross.widths.length + across.level,
          part.k,
          g * cross.widths[across.level] + across.group,
        );
  const marksAt = (
    i: number,
    g: number,
    across: Across,
    part: Part,
    at: number,
    rests: Influence | null,
  ): Mark[] => {
    if (part.of === 'count') return [];
    const { k } = part;
    if (part.of === 'share') {
      // The measure that it is a share of stands before its shares.
      const own = at - 1 - sharesOf(spec, k).indexOf(part.share);
      const of = divisor(i, g, across, part);
      return shareRestsMark(input.table, columns[own], columns[at], at, rests, of);
    }
    const n = count(i, g, across);
    const few = n > 0 && n < spec.few && MEASURES[spec.measures[k].kind].figure !== 'count';
    return [
      ...(few ? [{ column: at, kind: 'few' as const, words: counted(n, 'record') }] : []),
      ...influenceMarks(input.table, columns[at], at, rests),
    ];
  };
  // Kept once they are made: each is as wide as the table.
  const made: (FigureRow | undefined)[] = new Array(walk.length);
  return {
    name: 'main',
    caption: 'Cross-tab',
    labels,
    columns,
    length: walk.length,
    groups: walk.groups,
    deepest: walk.deepest,
    row(n) {
      const known = made[n];
      if (known) return known;
      const { level, group } = walk.at(n);
      const cells: Figure[] = [];
      const marks: Mark[] = [];
      const means: [number, Influence | null][] = [];
      for (const across of groups)
        for (const part of parts) {
          const at = labels + cells.length;
          const rests = restsAt(level + 1, group, across, part);
          marks.push(...marksAt(level + 1, group, across, part, at, rests));
          if (part.of === 'measure') means.push([at, rests]);
          cells.push(cellAt(level + 1, group, across, part));
        }
      return (made[n] = {
        ...walk.row(n, cells),
        ...marked(marks),
        ...deviationsOf(columns, means),
      });
    },
    number(n, column) {
      if (column < labels) return NaN;
      const { level, group } = walk.at(n);
      const k = column - labels;
      const [across, part] = [groups[Math.floor(k / parts.length)], parts[k % parts.length]];
      const cell = cellAt(level + 1, group, across, part);
      return typeof cell === 'number' ? cell : NaN;
    },
    partOf: (n) => walk.partOf(n),
    outline: (n) => walk.outline(n),
    find: (keys) => walk.find(keys),
    recordsOf: (rows) => walk.recordsOf(rows),
    carried: (n) => walk.reached(n),
  };
}

import { groupKeys, groupPath } from '../../../arrange/tree';
import { MEASURES, type Measure } from '../../../measure/measure';
import type { Condition } from '../../../selection/condition';
import { partOf, type Task } from '../../../task/task';
import { orderedFor, recordsOf } from '../../input/input';
import { computeGroups } from '../../groups/groupFigures';
import { groupWhere, treeOf } from '../../groups/keys';
import type { Influence } from '../../trust/influence';
import type { Figure } from '../../answer/result';
import type { Warning } from '../../trust/warnings';
import type { Side, Sides } from './sides';
import type { ContributionsSpec } from './spec';

/** A figure of one side, with the values it stands on. */
export interface SideFigure {
  readonly figure: number;
  readonly values: number;
  readonly rests: Influence | null;
}

/** A group with its figures before and after, and what it gave to the change. */
export interface Contribution {
  readonly path: readonly string[];
  readonly keys: readonly Figure[];
  readonly where: Condition;
  readonly before: SideFigure;
  readonly after: SideFigure;
  readonly gave: number;
  /** For a mean: by its own mean, and by its weight. They add up to what it gave. */
  readonly own: number;
  readonly weight: number;
}

export interface Contributions {
  readonly before: SideFigure;
  readonly after: SideFigure;
  readonly groups: readonly Contribution[];
  readonly warnings: readonly Warning[];
}

/** A side without a record of the group: its sums and counts are 0, its means none. */
const nothing = (adds: boolean): SideFigure => ({
  figure: adds ? 0 : NaN,
  values: 0,
  rests: null,
});

/**
 * What each group gave to the change of the whole. A sum or a count: its difference. A mean: its
 * part by its own mean, (m₁ − m₀)(w₁ + w₀) ÷ 2, and by its weight, (w₁ − w₀)((m₁ + m₀) ÷ 2 − M),
 * where w is its share of the values and M the mean of both whole means (Kitagawa 1955; M takes
 * nothing from the sum, as the weights' changes add up to 0, and makes each part say whether the
 * group lies above or below the whole). A group that is on one side only gives by its weight alone.
 */
export function* contributionsOf(spec: ContributionsSpec, sides: Sides): Task<Contributions> {
  const older = yield* partOf(sideFigures(spec, sides.before), 0, 0.5);
  const newer = yield* partOf(sideFigures(spec, sides.after), 0.5, 1);
  const adds = MEASURES[spec.measure.kind].adds;
  const middle = (older.total.figure + newer.total.figure) / 2;
  const names = new Map([...older.groups, ...newer.groups]);
  const groups = [...names].map(([name, { path, keys, where }]): Contribution => {
    const before = older.groups.get(name)?.side ?? nothing(adds);
    const after = newer.groups.get(name)?.side ?? nothing(adds);
    if (adds) {
      const gave = orZero(after.figure) - orZero(before.figure);
      return { path, keys, where, before, after, gave, own: gave, weight: 0 };
    }
    const [w0, w1] = [
      before.values / (older.total.values || 1),
      after.values / (newer.total.values || 1),
    ];
    const m0 = before.values ? before.figure : after.figure;
    const m1 = after.values ? after.figure : before.figure;
    const own = w0 + w1 > 0 ? ((m1 - m0) * (w1 + w0)) / 2 : 0;
    const weight = w0 + w1 > 0 ? (w1 - w0) * ((m1 + m0) / 2 - middle) : 0;
    return { path, keys, where, before, after, own, weight, gave: own + weight };
  });
  return {
    before: older.total,
    after: newer.total,
    groups: ordered(groups, spec.order),
    warnings: newer.warnings,
  };
}

const orZero = (v: number): number => (v === v ? v : 0);

const ordered = (groups: Contribution[], order: ContributionsSpec['order']): Contribution[] =>
  order === 'size'
    ? groups.sort((a, b) => Math.abs(b.gave) - Math.abs(a.gave))
    : groups.sort((a, b) =>
        a.path.join('\u0001').localeCompare(b.path.join('\u0001'), 'en', { numeric: true }),
      );

interface SideFigures {
  readonly total: SideFigure;
  /** By keys, as the two sides may number them differently. */
  readonly groups: ReadonlyMap<
    string,
    { path: string[]; keys: Figure[]; where: Condition; side: SideFigure }
  >;
  readonly warnings: readonly Warning[];
}

function* sideFigures({ by, measure }: ContributionsSpec, side: Side): Task<SideFigures> {
  const { input, selection } = side;
  const { tree, warnings } = yield* treeOf(input, by, selection);
  const values: Measure =
    measure.column === undefined ? { kind: 'records' } : { kind: 'values', column: measure.column };
  const measures = [measure, values];
  const figures = yield* computeGroups(
    {
      table: input.table,
      tree,
      records: recordsOf(selection),
      ordered: yield* orderedFor(input, selection, measures),
    },
    measures,
  );
  const deepest = tree.levels.length - 1;
  const groups: SideFigures['groups'] = new Map(
    Array.from(figures.records[deepest].keys())
      .filter((g) => figures.records[deepest][g] > 0)
      .map((g) => {
        const keys = groupKeys(tree, deepest, g);
        return [
          JSON.stringify(keys),
          {
            path: groupPath(tree, deepest, g),
            keys,
            where: groupWhere(tree, deepest, g),
            side: {
              figure: figures.levels[deepest][0][g],
              values: figures.levels[deepest][1][g],
              rests: figures.influences.at(deepest + 1, 0, g),
            },
          },
        ];
      }),
  );
  return {
    total: {
      figure: figures.total[0],
      values: figures.total[1],
      rests: figures.influences.at(0, 0, 0),
    },
    groups,
    warnings,
  };
}

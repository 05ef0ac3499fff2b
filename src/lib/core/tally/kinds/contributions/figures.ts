import { MEASURES } from '../../../measure/measure';
import type { Condition } from '../../../selection/condition';
import { partOf, type Task } from '../../../task/task';
import { sideFigures, type SideFigure } from '../../groups/sideFigures';
import type { Figure } from '../../answer/result';
import type { Warning } from '../../trust/warnings';
import type { Sides } from './sides';
import type { ContributionsSpec } from './spec';

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
  records: 0,
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
  const older = yield* partOf(sideFigures(sides.before, spec), 0, 0.5);
  const newer = yield* partOf(sideFigures(sides.after, spec), 0.5, 1);
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

/** Equal contributions stand in label order, whichever was met first. */
const ordered = (groups: Contribution[], order: ContributionsSpec['order']): Contribution[] =>
  groups.sort(
    (a, b) => (order === 'size' ? Math.abs(b.gave) - Math.abs(a.gave) : 0) || byLabel(a, b),
  );

const byLabel = ({ path: a }: Contribution, { path: b }: Contribution): number =>
  a.join('\u0001').localeCompare(b.join('\u0001'), 'en', { numeric: true });

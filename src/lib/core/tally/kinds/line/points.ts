import { TallyRefused } from '../../../errors';
import { groupKeys, groupPath } from '../../../arrange/tree';
import { columnFor } from '../../../expression/columnFor';
import { fitLines, lineAt, type Fit } from '../../../measure/line';
import type { Condition } from '../../../selection/condition';
import { mergedSort } from '../../../sorting/mergedSort';
import { inStretches, STRIDE, type Task } from '../../../task/task';
import { isNumeric, type ScalarColumn } from '../../../table/column';
import type { Table } from '../../../table/table';
import { recordsOf, selectionOf, type TallyInput } from '../../input/input';
import { GroupWalk } from '../../groups/groupWalk';
import { groupWhere, treeOf } from '../../groups/keys';
import type { Figure } from '../../answer/result';
import { computeSeries, type Series } from '../../series/series';
import type { SeriesSpec } from '../../series/seriesSpec';
import type { Warning } from '../../trust/warnings';
import type { LineSpec } from './spec';

/** The points of one line: of the whole or of a group. */
export interface LinePoints extends Fit {
  readonly path: readonly string[];
  readonly keys: readonly Figure[];
  /** What its records meet; null for the whole. */
  readonly where: Condition | null;
}

/** All lines of a tally, and where what is left of each point is found. */
export interface FittedLines {
  readonly whole: LinePoints;
  readonly groups: readonly LinePoints[];
  /** Records (or periods) that have no x or no y. */
  readonly without: number;
  /** Points that lie far off their line, the furthest first. */
  readonly far: readonly FarPoint[];
  readonly warnings: readonly Warning[];
}

export interface FarPoint {
  /** The place of the record, or of the period in the series. */
  readonly at: number;
  readonly x: number;
  readonly y: number;
  readonly residual: number;
  /** Residual ÷ the residual deviation of its line. */
  readonly deviations: number;
  readonly of: LinePoints;
}

export const numberColumn = (table: Table, ref: string): ScalarColumn => {
  const column = columnFor(table, ref);
  if (!isNumeric(column)) throw new TallyRefused(`“${column.name}” holds no numbers.`);
  return column;
};

/** Lines through the records that have a value in both columns. @throws TallyRefused */
export function* linesOfColumns(
  input: TallyInput,
  spec: LineSpec,
  x: ScalarColumn,
  y: ScalarColumn,
): Task<FittedLines> {
  const { table } = input;
  const selection = selectionOf(input, spec.scope);
  const records = recordsOf(selection);
  const common = { x: x.values, y: y.values, records, origin: spec.origin };
  const all = yield* fitLines({ ...common, leafOf: new Int32Array(table.length), leaves: 1 });
  yield undefined;
  const whole: LinePoints = { path: [], keys: [], where: null, ...all[0] };
  const { tree, warnings } = yield* treeOf(input, spec.by, selection);
  const grouped = spec.by.length
    ? yield* fitLines({ ...common, leafOf: tree.leafOf, leaves: tree.leaves })
    : null;
  yield undefined;
  const counts = new Float64Array(tree.leaves);
  yield* inStretches(records.length, (from, to) => {
    for (let k = from; k < to; k++) counts[tree.leafOf[records[k]]]++;
  });
  const byLeaf = new Map<number, LinePoints>();
  const deepest = tree.levels.length - 1;
  if (grouped)
    yield* inStretches(
      grouped.length,
      (from, to) => {
        for (let leaf = from; leaf < to; leaf++)
          if (counts[leaf] > 0)
            byLeaf.set(leaf, {
              path: groupPath(tree, deepest, leaf),
              keys: groupKeys(tree, deepest, leaf),
              where: groupWhere(tree, deepest, leaf),
              ...grouped[leaf],
            });
      },
      STRIDE >> 6,
    );
  const inOrder = yield* GroupWalk.of(
    tree,
    spec.by.map((key) => key.order),
    tree.levels.map((level, l) => ({
      records: l === deepest ? counts : new Float64Array(level.size).fill(1),
      measures: [],
    })),
  );
  const groups: LinePoints[] = [];
  yield* inStretches(inOrder.length - 1, (from, to) => {
    for (let n = from + 1; n <= to; n++) {
      const { level, group } = inOrder.at(n);
      const points = level === deepest ? byLeaf.get(group) : undefined;
      if (points) groups.push(points);
    }
  });
  let without = 0;
  const far: FarPoint[] = [];
  const look = (i: number): void => {
    if (x.values[i] !== x.values[i] || y.values[i] !== y.values[i]) {
      without++;
      return;
    }
    const of = grouped ? byLeaf.get(tree.leafOf[i]) : whole;
    const point = farPoint(spec, of, i, x.values[i], y.values[i]);
    if (point) far.push(point);
  };
  yield* inStretches(records.length, (from, to) => {
    for (let k = from; k < to; k++) look(records[k]);
  });
  return { whole, groups, without, far: yield* furthestFirst(far), warnings };
}

/** The point where it lies far off its line; null where it does not. */
function farPoint(
  { far }: LineSpec,
  of: LinePoints | undefined,
  at: number,
  x: number,
  y: number,
): FarPoint | null {
  if (!of?.line) return null;
  const residual = y - lineAt(of.line, x);
  const deviations = residual / of.line.residualSd;
  return Math.abs(deviations) > far ? { at, x, y, residual, deviations, of } : null;
}

const furthestFirst = (far: readonly FarPoint[]): Task<FarPoint[]> =>
  mergedSort(far, (a, b) => Math.abs(b.deviations) - Math.abs(a.deviations) || a.at - b.at);

/** Lines through a series and those of its groups, over the periods counted from 1. */
export function* linesOfSeries(
  input: TallyInput,
  spec: LineSpec,
  asked: SeriesSpec,
): Task<FittedLines & { readonly series: Series }> {
  const set = yield* computeSeries(input, selectionOf(input, spec.scope), asked);
  const n = set.whole.length;
  const x = Float64Array.from({ length: n }, (_, k) => k + 1);
  const records = Int32Array.from({ length: n }, (_, k) => k);
  const far: FarPoint[] = [];
  const fit = function* (
    series: Series,
    about: Omit<LinePoints, keyof Fit>,
    looks: boolean,
  ): Task<LinePoints> {
    // A period without records has a sum of 0 that nobody observed.
    const y = series.values.map((v, k) => (series.records[k] === 0 ? NaN : v));
    const [fitted] = yield* fitLines({
      x,
      y,
      records,
      leafOf: new Int32Array(n),
      leaves: 1,
      origin: spec.origin,
    });
    const points: LinePoints = { ...about, ...fitted };
    if (looks)
      for (let k = 0; k < n; k++) {
        const point = farPoint(spec, points, k, x[k], y[k]);
        if (point) far.push(point);
      }
    return points;
  };
  const whole = yield* fit(set.whole, { path: [], keys: [], where: null }, set.groups.length === 0);
  const groups: LinePoints[] = [];
  for (const { path, keys, where, series } of set.groups)
    groups.push(yield* fit(series, { path, keys, where }, true));
  return {
    whole,
    groups,
    series: set.whole,
    without: set.whole.records.reduce((m, of) => m + Number(of === 0), 0),
    far: yield* furthestFirst(far),
    warnings: set.warnings,
  };
}

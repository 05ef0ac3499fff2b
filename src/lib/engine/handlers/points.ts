import { columnFor } from '../../core/expression/columnFor';
import { inStretches, type Task } from '../../core/task/task';
import { groupPath, type GroupTree } from '../../core/arrange/tree';
import { studentQuantile } from '../../core/forecast/quantiles';
import { fitLines, lineAt, predictionSd, type Fit, type Line } from '../../core/measure/line';
import { isText, type ScalarColumn } from '../../core/table/column';
import { selectionOf, type TallyInput } from '../../core/tally/input/input';
import { treeOf } from '../../core/tally/groups/keys';
import { rangeAmong } from '../../core/tally/input/range';
import type { Shaped } from '../../core/tally/kind/kind';
import type { Tally } from '../../core/tally/spec/specs';
import type { Shape } from '../replies/shape';

/** More points than this are counted in cells. */
const MOST_POINTS = 2500;
const CELLS_ALONG = 72;
const CELLS_UP = 44;

/** The points of one column along another: each with its record, or so many in each cell. */
export function* pointsOf(
  input: TallyInput,
  y: ScalarColumn,
  records: Int32Array,
  { along, keys = [], fit }: Shaped,
  tally: Tally,
): Task<Shape> {
  const x = columnFor(input.table, along ?? '');
  if (isText(x)) return { kind: 'none' };
  const { tree } = yield* treeOf(input, keys, selectionOf(input, tally.scope));
  const there = yield* withBoth(x.values, y.values, records);
  const about = {
    kind: 'points' as const,
    x: { name: x.name, unit: x.unit },
    y: { name: y.name, unit: y.unit },
    count: there.length,
    ...(yield* linesOf(x, y, records, fit, tree)),
  };
  if (there.length <= MOST_POINTS) {
    const depth = tree.levels.length - 1;
    const met = new Map<number, number>();
    const groupOf = (leaf: number): number => {
      const group = met.get(leaf) ?? met.size;
      met.set(leaf, group);
      return group;
    };
    return {
      ...about,
      points: Array.from(there, (i): [number, number, number, number] => [
        x.values[i],
        y.values[i],
        i,
        keys.length ? groupOf(tree.leafOf[i]) : -1,
      ]),
      groups: [...met.keys()].map((leaf) => groupPath(tree, depth, leaf).join(' › ')),
      cells: [],
      cell: [0, 0],
    };
  }
  return { ...about, points: [], groups: [], ...(yield* inCells(x.values, y.values, there)) };
}

/** The records that have a value in both. */
function* withBoth(x: Float64Array, y: Float64Array, records: Int32Array): Task<Int32Array> {
  const there = new Int32Array(records.length);
  let n = 0;
  yield* inStretches(records.length, (from, to) => {
    let at = n;
    for (let k = from; k < to; k++) {
      const i = records[k];
      if (x[i] === x[i] && y[i] === y[i]) there[at++] = i;
    }
    n = at;
  });
  return there.subarray(0, n);
}

/** So many points in each cell of a grid over all of them; empty cells are left out. */
function* inCells(
  x: Float64Array,
  y: Float64Array,
  there: Int32Array,
): Task<Pick<Extract<Shape, { kind: 'points' }>, 'cells' | 'cell'>> {
  const along = yield* rangeAmong(x, there);
  const up = yield* rangeAmong(y, there);
  const wide = (along.max - along.min) / CELLS_ALONG || 1;
  const high = (up.max - up.min) / CELLS_UP || 1;
  const counts = new Int32Array(CELLS_ALONG * CELLS_UP);
  yield* inStretches(there.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const i = there[k];
      const a = Math.min(CELLS_ALONG - 1, Math.floor((x[i] - along.min) / wide));
      const b = Math.min(CELLS_UP - 1, Math.floor((y[i] - up.min) / high));
      counts[b * CELLS_ALONG + a]++;
    }
  });
  return {
    cells: Array.from(counts.keys())
      .filter((c) => counts[c] > 0)
      .map((c): [number, number, number] => [
        along.min + (c % CELLS_ALONG) * wide,
        up.min + Math.floor(c / CELLS_ALONG) * high,
        counts[c],
      ]),
    cell: [wide, high],
  };
}

type Drawn = Pick<Extract<Shape, { kind: 'points' }>, 'lines' | 'band' | 'others'>;

/** More lines of groups than this cannot be told apart: those of the most points are drawn. */
const MOST_LINES = 12;

const BAND_STEPS = 32;

/** The lines from end to end of their points, and the bounds around the line of the whole. */
function* linesOf(
  x: ScalarColumn,
  y: ScalarColumn,
  records: Int32Array,
  fit: Shaped['fit'],
  tree: GroupTree,
): Task<Drawn> {
  if (!fit) return { lines: [], band: [], others: 0 };
  const common = { x: x.values, y: y.values, records, origin: fit.origin };
  const all = yield* fitLines({ ...common, leafOf: new Int32Array(x.values.length), leaves: 1 });
  yield undefined;
  const grouped = tree.levels.length
    ? yield* fitLines({ ...common, leafOf: tree.leafOf, leaves: tree.leaves })
    : [];
  const [{ line: whole }] = all;
  const drawn = (line: Line | null, label: string): Drawn['lines'] =>
    line
      ? [
          {
            label,
            from: [line.least, lineAt(line, line.least)],
            to: [line.most, lineAt(line, line.most)],
          },
        ]
      : [];
  const { shown, others } = yield* ofMostPoints(grouped);
  return {
    lines: [
      ...drawn(whole, grouped.length ? 'All' : ''),
      ...shown.flatMap((leaf) =>
        drawn(grouped[leaf].line, groupPath(tree, tree.levels.length - 1, leaf).join(' › ')),
      ),
    ],
    others,
    band: whole && whole.residualSd === whole.residualSd ? bandOf(whole, fit.percent) : [],
  };
}

/** The leaves whose lines are drawn, in their order, and how many others have one. */
function* ofMostPoints(fits: readonly Fit[]): Task<{ shown: number[]; others: number }> {
  const shown: number[] = [];
  let lines = 0;
  const look = (leaf: number): void => {
    if (!fits[leaf].line) return;
    lines++;
    const fewest = shown.at(-1);
    if (shown.length === MOST_LINES && fewest !== undefined && fits[fewest].n >= fits[leaf].n)
      return;
    shown.push(leaf);
    shown.sort((a, b) => fits[b].n - fits[a].n || a - b);
    shown.length = Math.min(shown.length, MOST_LINES);
  };
  yield* inStretches(fits.length, (from, to) => {
    for (let leaf = from; leaf < to; leaf++) look(leaf);
  });
  return { shown: shown.sort((a, b) => a - b), others: lines - shown.length };
}

function bandOf(line: Line, percent: number): Drawn['band'] {
  const t = studentQuantile((1 + percent / 100) / 2, line.n - (line.origin ? 1 : 2));
  return Array.from({ length: BAND_STEPS + 1 }, (_, k): [number, number, number] => {
    const at = line.least + ((line.most - line.least) * k) / BAND_STEPS;
    const reach = t * predictionSd(line, at);
    return [at, lineAt(line, at) - reach, lineAt(line, at) + reach];
  });
}

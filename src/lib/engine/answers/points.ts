import { columnFor } from '../../core/expression/columnFor';
import { STRIDE, type Steps } from '../../core/steps/steps';
import { groupPath, type GroupTree } from '../../core/arrange/tree';
import { studentQuantile } from '../../core/forecast/quantiles';
import { fitLines, lineAt, predictionSd, type Line } from '../../core/measure/line';
import { isText, type ScalarColumn } from '../../core/table/column';
import { selectionOf, type Base } from '../../core/tally/base';
import { treeOf } from '../../core/tally/keys';
import type { Shaped } from '../../core/tally/kind';
import type { Tally } from '../../core/tally/specs';
import type { Shape } from '../replies/shape';

/** More points than this are counted in cells. */
const MOST_POINTS = 2500;
const CELLS_ALONG = 72;
const CELLS_UP = 44;

/** The points of one column along another: each with its record, or so many in each cell. */
export function* pointsOf(
  base: Base,
  y: ScalarColumn,
  records: Int32Array,
  { along, keys = [] }: Shaped,
  tally: Tally,
): Steps<Shape> {
  const x = columnFor(base.table, along ?? '');
  if (isText(x)) return { kind: 'none' };
  const { tree } = yield* treeOf(base, keys, selectionOf(base, tally.scope));
  const there = records.filter((i) => x.values[i] === x.values[i] && y.values[i] === y.values[i]);
  const about = {
    kind: 'points' as const,
    x: { name: x.name, unit: x.unit },
    y: { name: y.name, unit: y.unit },
    count: there.length,
    ...(yield* linesOf(x, y, records, tally, tree)),
  };
  if (there.length <= MOST_POINTS) {
    const depth = tree.levels.length - 1;
    return {
      ...about,
      points: Array.from(there, (i): [number, number, number, number] => [
        x.values[i],
        y.values[i],
        i,
        keys.length ? tree.leafOf[i] : -1,
      ]),
      groups: keys.length
        ? Array.from({ length: tree.leaves }, (_, leaf) => groupPath(tree, depth, leaf).join(' › '))
        : [],
      cells: [],
      cell: [0, 0],
    };
  }
  let x0 = Infinity;
  let x1 = -Infinity;
  let y0 = Infinity;
  let y1 = -Infinity;
  for (const i of there) {
    x0 = Math.min(x0, x.values[i]);
    x1 = Math.max(x1, x.values[i]);
    y0 = Math.min(y0, y.values[i]);
    y1 = Math.max(y1, y.values[i]);
  }
  yield undefined;
  const cell: [number, number] = [(x1 - x0) / CELLS_ALONG || 1, (y1 - y0) / CELLS_UP || 1];
  const counts = new Int32Array(CELLS_ALONG * CELLS_UP);
  for (let k = 0; k < there.length; k++) {
    const i = there[k];
    const a = Math.min(CELLS_ALONG - 1, Math.floor((x.values[i] - x0) / cell[0]));
    const b = Math.min(CELLS_UP - 1, Math.floor((y.values[i] - y0) / cell[1]));
    counts[b * CELLS_ALONG + a]++;
    if (k % (8 * STRIDE) === 0) yield undefined;
  }
  return {
    ...about,
    points: [],
    groups: [],
    cells: Array.from(counts.keys())
      .filter((c) => counts[c] > 0)
      .map((c): [number, number, number] => [
        x0 + (c % CELLS_ALONG) * cell[0],
        y0 + Math.floor(c / CELLS_ALONG) * cell[1],
        counts[c],
      ]),
    cell,
  };
}

type Drawn = Pick<Extract<Shape, { kind: 'points' }>, 'lines' | 'band'>;

const BAND_STEPS = 32;

/** The lines from end to end of their points, and the bounds around the line of the whole. */
function* linesOf(
  x: ScalarColumn,
  y: ScalarColumn,
  records: Int32Array,
  tally: Tally,
  tree: GroupTree,
): Steps<Drawn> {
  if (tally.kind !== 'line') return { lines: [], band: [] };
  const common = { x: x.values, y: y.values, records, origin: tally.origin };
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
  return {
    lines: [
      ...drawn(whole, grouped.length ? 'All' : ''),
      ...grouped.flatMap(({ line }, leaf) =>
        drawn(line, groupPath(tree, tree.levels.length - 1, leaf).join(' › ')),
      ),
    ],
    band: whole && whole.residualSd === whole.residualSd ? bandOf(whole, tally.percent) : [],
  };
}

function bandOf(line: Line, percent: number): Drawn['band'] {
  const t = studentQuantile((1 + percent / 100) / 2, line.n - (line.origin ? 1 : 2));
  return Array.from({ length: BAND_STEPS + 1 }, (_, k): [number, number, number] => {
    const at = line.least + ((line.most - line.least) * k) / BAND_STEPS;
    const reach = t * predictionSd(line, at);
    return [at, lineAt(line, at) - reach, lineAt(line, at) + reach];
  });
}

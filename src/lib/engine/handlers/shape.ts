import { buildTree } from '../../core/arrange/tree';
import { columnFor } from '../../core/expression/columnFor';
import { gather } from '../../core/measure/slices';
import { sortedInParts, sortedValues } from '../../core/sorting/sorted';
import { inStretches, type Task } from '../../core/task/task';
import { isText, type ScalarColumn } from '../../core/table/column';
import { recordsOf, selectionOf, type TallyInput } from '../../core/tally/input/input';
import type { Answer } from '../../core/tally/answer/answer';
import type { Shaped } from '../../core/tally/kind/kind';
import { codesOf } from '../../core/tally/groups/keys';
import { kindOf } from '../../core/tally/kind/kinds';
import { leavesInOrder } from '../../core/tally/groups/sortedGroups';
import type { Session } from '../session';
import { pointsOf } from './points';
import { seriesOf } from './series';
import type { ArgsOf, ReplyOf } from '../protocol';
import type { Shape } from '../replies/shape';

const MOST_BINS = 240;
const MOST_POINTS = 300;
const MOST_CURVES = 8;

/** What a tally's chart shows besides its figures. */
export function* answerShape(
  session: Session,
  { tally: id, from }: ArgsOf<'shape'>,
): Task<ReplyOf<'shape'>> {
  const { tally, input, answer } = yield* session.answer(id);
  const shaped = answer ? kindOf(tally).shape() : null;
  if (!shaped) return { kind: 'none' };
  if (shaped.as === 'series')
    return answer
      ? yield* seriesOf(answer, shaped.of, from, session.doc.formats)
      : { kind: 'none' };
  const column = columnFor(input.table, shaped.of);
  if (isText(column)) return { kind: 'none' };
  const records = recordsOf(selectionOf(input, tally.scope));
  yield undefined;
  if (shaped.as === 'points') return yield* pointsOf(input, column, records, shaped, tally);
  return shaped.as === 'bins'
    ? yield* bins(column, records, { ...shaped, reach: [...shaped.reach, ...edgesOf(answer)] })
    : yield* curves(input, column, records, shaped, tally.scope);
}

/** Edges of the bands as they came out. */
function edgesOf(answer: Answer | null): number[] {
  const table = answer?.tables[0];
  if (!table) return [];
  const at = ['from', 'to'].map((key) => table.columns.findIndex((c) => c.key === key));
  return Array.from({ length: table.length }, (_, n) => at.map((c) => table.number(n, c))).flat();
}

/**
 * Bins of one width from the lowest to the highest value; where a few lie far off, to the 99.5 %
 * place and the edges that must be seen, and the others are counted as beyond.
 */
function* bins(column: ScalarColumn, records: Int32Array, { reach }: Shaped): Task<Shape> {
  const values = yield* sortedValues(column.values, records);
  const n = values.length;
  if (n === 0) return { kind: 'none' };
  const inner = reach.filter(Number.isFinite);
  const lo = Math.min(values[Math.floor((n - 1) * 0.002)], ...inner);
  const hi = Math.max(values[Math.ceil((n - 1) * 0.995)], ...inner);
  const width = stepFor(hi - lo, column.decimals);
  const first = Math.floor(lo / width) * width;
  const count = Math.max(1, Math.min(2 * MOST_BINS, Math.floor((hi - first) / width) + 1));
  const counts = new Array<number>(count).fill(0);
  let under = 0;
  let over = 0;
  yield* inStretches(n, (from, to) => {
    for (let k = from; k < to; k++) {
      const at = Math.floor((values[k] - first) / width + 1e-9);
      if (at < 0) under++;
      else if (at >= count) over++;
      else counts[at]++;
    }
  });
  return {
    kind: 'bins',
    edges: Array.from({ length: count + 1 }, (_, k) => Number((first + k * width).toPrecision(12))),
    counts,
    under,
    over,
    least: values[0],
    most: values[n - 1],
    name: column.name,
    unit: column.unit,
    decimals: column.decimals,
  };
}

/** A width of 1, 2 or 5 times a power of ten, no finer than the values are written. */
function stepFor(range: number, decimals: number): number {
  const least = 10 ** -decimals;
  const raw = range / MOST_BINS;
  if (!(raw > least)) return least;
  const power = 10 ** Math.floor(Math.log10(raw));
  const lead = raw / power;
  return (lead <= 1 ? 1 : lead <= 2 ? 2 : lead <= 5 ? 5 : 10) * power;
}

/** Values in order and which share lies at or under each, one curve a group. */
function* curves(
  input: TallyInput,
  column: ScalarColumn,
  records: Int32Array,
  { key }: Shaped,
  scope: 'counted' | 'narrowed' | 'all',
): Task<Shape> {
  const keyGroups = key ? yield* codesOf(input, key, selectionOf(input, scope)) : null;
  const tree = yield* buildTree(input.table.length, keyGroups ? [keyGroups.codes] : []);
  const slices = yield* gather(column.values, tree.leafOf, tree.leaves, records);
  yield undefined;
  const { start } = slices;
  const counts = new Int32Array(tree.leaves);
  for (let leaf = 0; leaf < tree.leaves; leaf++) counts[leaf] = start[leaf + 1] - start[leaf];
  const leaves = keyGroups ? yield* leavesInOrder(tree, counts) : counts[0] > 0 ? [0] : [];
  const out = [];
  for (const leaf of leaves.slice(0, MOST_CURVES)) {
    const values = yield* sortedInParts(
      slices.values.subarray(slices.start[leaf], slices.start[leaf + 1]),
    );
    out.push({
      label: keyGroups ? keyGroups.codes.label(tree.levels[0].code[leaf]) : '',
      count: values.length,
      ...(yield* stepsOf(values)),
    });
    yield undefined;
  }
  return {
    kind: 'curves',
    name: column.name,
    unit: column.unit,
    curves: out,
    others: Math.max(0, leaves.length - MOST_CURVES),
  };
}

/** Each distinct value and the share at or under it; of very many, an even choice. */
function* stepsOf(values: Float64Array): Task<{ values: number[]; shares: number[] }> {
  const last = values.length - 1;
  let distinct = 0;
  yield* inStretches(last + 1, (from, to) => {
    let n = distinct;
    for (let k = from; k < to; k++) if (k === last || values[k] !== values[k + 1]) n++;
    distinct = n;
  });
  const stride = Math.max(1, Math.ceil(distinct / MOST_POINTS));
  const chosen: number[] = [];
  let met = 0;
  yield* inStretches(last + 1, (from, to) => {
    let n = met;
    for (let k = from; k < to; k++)
      if (k === last || values[k] !== values[k + 1]) {
        if (n % stride === 0 || k === last) chosen.push(k);
        n++;
      }
    met = n;
  });
  return {
    values: chosen.map((k) => values[k]),
    shares: chosen.map((k) => (k + 1) / values.length),
  };
}

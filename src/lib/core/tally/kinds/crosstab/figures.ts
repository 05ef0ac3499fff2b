import type { GroupCodes } from '../../../arrange/groupCodes';
import { buildTree, type GroupTree } from '../../../arrange/tree';
import type { Grouping } from '../../../measure/grouping';
import type { Measure } from '../../../measure/measure';
import type { Leafed } from '../../../measure/leafed';
import { inStretches, type Task } from '../../../task/task';
import type { Table } from '../../../table/table';
import { refuseTooMany } from '../../groups/keys';
import { levelGroupings } from '../../groups/groupFigures';
import { computeInfluences, type Influences } from '../../trust/influence';
import { MOST_ACROSS, MOST_CELLS } from './spec';

/**
 * Figures of a cross-tab: those of group g at level i down and group h at level j across stand at
 * place g · widths[j] + h. Level 0 is the whole, so that margins come from the records as all else.
 */
export interface CrossFigures {
  readonly down: GroupTree;
  readonly across: GroupTree;
  /** Groups at each level across, the whole first. */
  readonly widths: readonly number[];
  /** `records[i][j]` and `figures[i][j][measure]`. */
  readonly records: readonly (readonly Float64Array[])[];
  readonly figures: readonly (readonly (readonly Float64Array[])[])[];
  /** What the figures rest on; levels i and j are grouping i · widths.length + j. */
  readonly influences: Influences;
}

/** One pass over the records numbers the combinations that occur; all levels are computed from those. */
export function* computeCross(
  table: Table,
  records: Int32Array,
  ordered: Int32Array,
  keys: { readonly down: readonly GroupCodes[]; readonly across: readonly GroupCodes[] },
  measures: readonly Measure[],
): Task<CrossFigures> {
  const down = yield* buildTree(table.length, keys.down);
  const across = yield* buildTree(table.length, keys.across);
  refuseTooMany(across.leaves, 'columns across', MOST_ACROSS);
  refuseTooMany(down.leaves * across.leaves, 'cells', MOST_CELLS);
  yield undefined;
  const cells = yield* buildTree(table.length, [asCodes(down), asCodes(across)]);
  yield undefined;
  const input: Leafed = { table, records, ordered, leafOf: cells.leafOf, leaves: cells.leaves };
  const sides = [yield* levelGroupings(down), yield* levelGroupings(across)];
  const [downLeaf, acrossLeaf] = yield* leafSides(cells);
  const groupings: Grouping[] = [];
  for (const d of sides[0])
    for (const a of sides[1]) {
      const of = new Int32Array(downLeaf.length);
      yield* inStretches(of.length, (from, to) => {
        for (let cell = from; cell < to; cell++)
          of[cell] = d.of[downLeaf[cell]] * a.size + a.of[acrossLeaf[cell]];
      });
      groupings.push({ size: d.size * a.size, of });
    }
  // Counted with the measures, so that the records are gone through once.
  const { figures: flat, influences } = yield* computeInfluences(input, groupings, [
    ...measures,
    { kind: 'records' },
  ]);
  const rows = <T>(all: readonly T[]): T[][] =>
    sides[0].map((_, i) => all.slice(i * sides[1].length, (i + 1) * sides[1].length));
  return {
    down,
    across,
    widths: sides[1].map((a) => a.size),
    records: rows(flat.map((figures) => figures[measures.length])),
    figures: rows(flat),
    influences,
  };
}

/** A side's leaves as the codes of one key. */
const asCodes = (tree: GroupTree): GroupCodes => ({
  codes: tree.leafOf,
  size: tree.leaves,
  label: String,
  rank: (code) => code,
  key: (code) => code,
  keyType: { type: 'number', unit: '', decimals: 0, percent: false, grain: 'day' },
  where: () => ({ kind: 'all', not: false, parts: [] }),
});

/** The leaf down and the leaf across of each cell. */
function* leafSides({ levels: [first, second] }: GroupTree): Task<[Int32Array, Int32Array]> {
  const downLeaf = new Int32Array(second.size);
  yield* inStretches(second.size, (from, to) => {
    for (let cell = from; cell < to; cell++) downLeaf[cell] = first.code[second.parent[cell]];
  });
  return [downLeaf, second.code];
}

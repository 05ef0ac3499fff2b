import { sortRecords } from '../../../arrange/sort';
import { buildTree, type GroupTree } from '../../../arrange/tree';
import type { Measure } from '../../../measure/measure';
import { partOf, type Task } from '../../../task/task';
import type { Bitset } from '../../../table/bitset';
import { orderedFor, recordsOf, selectionOf, type TallyInput } from '../../input/input';
import { computeGroups, type GroupFigures } from '../../groups/groupFigures';
import { codesOfAll, MOST_GROUPS, refuseTooMany } from '../../groups/keys';
import type { Warning } from '../../trust/warnings';
import { withRunning } from './running';
import type { LedgerSpec } from './spec';

/** A ledger computed over a selection: what its tables, its lines and its footing are read from. */
export interface ComputedLedger {
  readonly spec: LedgerSpec;
  readonly measures: readonly Measure[];
  readonly selection: Bitset;
  /** The selection as rising record numbers. */
  readonly records: Int32Array;
  /** All records of the list in the order of the ledger. */
  readonly order: Int32Array;
  readonly tree: GroupTree;
  /** What names the tree among those of its base. */
  readonly treeKey: string;
  readonly figures: GroupFigures;
  /** The same before running totals were made of them: what groups are ordered by. */
  readonly own: GroupFigures;
  readonly warnings: readonly Warning[];
}

/**
 * Computes a ledger. Its steps are kept with the base, each until what it rests on changes.
 * @throws TallyRefused where the groups would be too many
 */
export function* computeLedger(input: TallyInput, spec: LedgerSpec): Task<ComputedLedger> {
  const { table, memo } = input;
  const selection = selectionOf(input, spec.scope);
  const records = recordsOf(selection);
  const order = yield* partOf(ledgerOrder(input, spec), 0, 0.4);
  yield undefined;
  const keyGroups = yield* codesOfAll(input, spec.groups, selection);
  // A tree covers all records; only bands found from the values depend on the selection.
  const keys = spec.groups.map(({ column, period, calendar, loose, bands }, k) => [
    column,
    period,
    calendar,
    loose,
    bands && [bands, keyGroups[k].bands],
  ]);
  const treeKey = JSON.stringify(keys);
  const tree = yield* memo.trees.onceInSteps(treeKey, () =>
    buildTree(
      table.length,
      keyGroups.map((c) => c.codes),
    ),
  );
  refuseTooMany(tree.leaves, 'groups', MOST_GROUPS);
  yield undefined;
  const { measures } = spec;
  const key = JSON.stringify([treeKey, measures, spec.sort, memo.numberOf(selection)]);
  let figures = memo.figures.get(key);
  if (!figures) {
    const ordered = yield* orderedFor({ order }, selection, measures);
    figures = yield* partOf(computeGroups({ table, tree, records, ordered }, measures), 0.4, 1);
    memo.figures.set(key, figures);
  }
  return {
    spec,
    measures,
    selection,
    records,
    order,
    tree,
    treeKey,
    own: figures,
    figures: yield* withRunning(
      figures,
      measures,
      tree,
      spec.groups.map((g) => g.order),
    ),
    warnings: keyGroups.flatMap((c) => c.warnings),
  };
}

/** The ledger's own order of records; those it holds equal keep the order of the list. */
export function* ledgerOrder(input: TallyInput, spec: LedgerSpec): Task<Int32Array> {
  if (spec.sort.length === 0) return input.order;
  const key = JSON.stringify(spec.sort);
  let order = input.memo.orders.get(key);
  if (!order)
    input.memo.orders.set(key, (order = yield* sortRecords(input.table, spec.sort, input.order)));
  return order;
}

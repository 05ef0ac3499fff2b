import { looksAtOrder, type Measure } from '../../measure/measure';
import { recordsOfTable } from '../../table/recordCounts';
import type { Task } from '../../task/task';
import { fullBitset, members, type Bitset } from '../../table/bitset';
import type { Table } from '../../table/table';
import type { Ladder } from '../../selection/condition';
import type { SortKey } from '../../arrange/sortKey';
import { TallyMemo } from '../kind/memo';
import type { ScopeName } from '../answer/result';
import { orderRead, putInOrder, selectedInSteps } from '../../table/recordOrder';

/** What every tally is computed from: a list, which of its records count, and their order. */
export interface TallyInput {
  readonly listName: string;
  readonly table: Table;
  readonly all: Bitset;
  /** After narrowing, before setting aside. */
  readonly narrowed: Bitset;
  readonly counted: Bitset;
  /** All records in the current order; `first`, `last` and ranks "in order" look at it. */
  readonly order: Int32Array;
  /** The keys that made that order, for the sentences of what looks at it; none: the order read. */
  readonly sort: readonly SortKey[];
  /** The ladder that made these selections; a comparison applies it to another reading. */
  readonly ladder: Ladder;
  /** Other lists by the name they were given, for comparisons. */
  readonly others: ReadonlyMap<string, Table>;
  /** Records of other readings that are set aside there as totals, by the names of these; see `totalsSetAside`. */
  readonly totalsAside?: ReadonlyMap<string, readonly number[]>;
  /** Steps kept between tallies over this table and order. */
  readonly memo: TallyMemo;
}

/** The selection a tally's scope names. */
export const selectionOf = (input: TallyInput, scope: ScopeName): Bitset =>
  scope === 'all' ? input.all : scope === 'narrowed' ? input.narrowed : input.counted;

const kept = new WeakMap<Bitset, Int32Array>();

/** Record numbers of a selection in rising order, kept as long as the selection. */
export function recordsOf(selection: Bitset): Int32Array {
  let known = kept.get(selection);
  if (!known) kept.set(selection, (known = members(selection)));
  return known;
}

/** The same with pauses, for selections that much will be asked of. */
export function* recordsInSteps(selection: Bitset): Task<Int32Array> {
  const known = kept.get(selection) ?? (yield* selectedInSteps(selection));
  kept.set(selection, known);
  return known;
}

/** Records of a selection in the current order; as they come where no measure looks at it. */
export function* orderedFor(
  { order }: Pick<TallyInput, 'order'>,
  selection: Bitset,
  measures: readonly Measure[],
): Task<Int32Array> {
  return measures.some((m) => looksAtOrder(m.kind))
    ? yield* putInOrder(order, selection)
    : recordsOf(selection);
}

/** A whole list with every record counted, in the order read. */
export function wholeInput(table: Table, listName = 'The list'): TallyInput {
  const all = fullBitset(table.length);
  return {
    listName,
    table,
    all,
    narrowed: all,
    counted: all,
    order: orderRead(table.length),
    sort: [],
    ladder: { rungs: [], setAside: { records: [], values: [], kept: [] } },
    others: new Map(),
    memo: new TallyMemo(),
  };
}

/** How the row of all records of a selection is called: by what it is all of. */
export const wholeLabel = (
  { table }: Pick<TallyInput, 'table'>,
  scope: ScopeName,
  records: number,
): string =>
  records === recordsOfTable(table)
    ? 'All records'
    : scope === 'narrowed'
      ? 'All before setting aside'
      : 'All counted';

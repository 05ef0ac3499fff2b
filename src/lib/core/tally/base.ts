import { looksAtOrder, type Measure } from '../measure/measure';
import type { Steps } from '../steps/steps';
import { fullBitset, members, type Bitset } from '../table/bitset';
import type { Table } from '../table/table';
import type { Ladder } from '../scope/condition';
import type { SortKey } from '../arrange/sortKey';
import { TallyMemo } from './memo';
import type { ScopeName } from './result';
import { orderRead, putInOrder, selectedInSteps } from '../table/recordOrder';

/** What every tally is computed from: a list, which of its records count, and their order. */
export interface Base {
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
export const selectionOf = (base: Base, scope: ScopeName): Bitset =>
  scope === 'all' ? base.all : scope === 'narrowed' ? base.narrowed : base.counted;

const kept = new WeakMap<Bitset, Int32Array>();

/** Record numbers of a selection in rising order, kept as long as the selection. */
export function recordsOf(selection: Bitset): Int32Array {
  let known = kept.get(selection);
  if (!known) kept.set(selection, (known = members(selection)));
  return known;
}

/** The same with pauses, for selections that much will be asked of. */
export function* recordsInSteps(selection: Bitset): Steps<Int32Array> {
  const known = kept.get(selection) ?? (yield* selectedInSteps(selection));
  kept.set(selection, known);
  return known;
}

/** Records of a selection in the current order; as they come where no measure looks at it. */
export function* orderedFor(
  { order }: Pick<Base, 'order'>,
  selection: Bitset,
  measures: readonly Measure[],
): Steps<Int32Array> {
  return measures.some((m) => looksAtOrder(m.kind))
    ? yield* putInOrder(order, selection)
    : recordsOf(selection);
}

/** A whole list with every record counted, in the order read. */
export function wholeBase(table: Table, listName = 'The list'): Base {
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

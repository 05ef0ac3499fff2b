import { isLocal, type Condition } from '../../../selection/condition';
import { takingAll } from '../../../prepare/reshape';
import { inStretches, type Task } from '../../../task/task';
import { add, emptyBitset, has, type Bitset } from '../../../table/bitset';
import type { Table } from '../../../table/table';
import { selectionOf, type TallyInput } from '../../input/input';
import { recordsWithin } from '../../input/recordsWithin';
import { amountsOf, type Amounts, type MovedAmount } from './amounts';
import type { Matched } from './match';
import { howOf, moversOf, type Mover, type Side } from './movers';
import type { ComparisonSpec } from './spec';

/** A figure that moved, and what its records are. */
export interface MovedRecords extends MovedAmount {
  readonly rowWhere?: Condition | undefined;
  readonly columnWhere?: Condition | undefined;
}

export interface Traced {
  readonly added: number;
  readonly gone: number;
  readonly changed: number;
  /** Of the newer figure: added and changed. */
  readonly records: number[];
  /** By how much each moved a figure that adds up; null for others. */
  readonly amounts: Amounts | null;
}

/** What traces figures to the records that moved them. */
export interface Tracer {
  /** Records of either figure that are not the same in both. */
  movers(moved: MovedRecords): Task<Mover[]>;
  trace(moved: MovedRecords): Task<Traced>;
}

/**
 * Finds the records that moved a figure, counts them, and says what each sort moved it by. A
 * record that is the same in both readings, and counts in both or in neither, moves no figure whose
 * conditions ask each record by itself: only the others are looked at.
 */
export function* tracer(
  input: TallyInput,
  before: TallyInput,
  spec: ComparisonSpec,
  matched: Matched,
): Task<Tracer> {
  const { scope } = spec.tally;
  const [selected, selectedThen] = [selectionOf(input, scope), selectionOf(before, scope)];
  const [changedNow, changedThen] = [
    flagsOf(input.table.length, matched.changed.after),
    flagsOf(before.table.length, matched.changed.before),
  ];
  const { older, newer } = matched;
  const mayHaveMoved: Sides = {
    now: yield* asker(input, selected, (i) => {
      const old = older[i];
      return old < 0 || changedNow[i] === 1 || has(selected, i) !== has(selectedThen, old);
    }),
    then: yield* asker(before, selectedThen, (i) => {
      const next = newer[i];
      return next < 0 || changedThen[i] === 1 || has(selectedThen, i) !== has(selected, next);
    }),
  };
  // Made where a condition looks beyond its own record.
  let all: Sides | null = null;
  function* sidesFor(wheres: Wheres): Task<Sides> {
    if (wheres.every((where) => !where || isLocal(where))) return mayHaveMoved;
    return (all ??= {
      now: yield* asker(input, selected, () => true),
      then: yield* asker(before, selectedThen, () => true),
    });
  }
  function* movers({ rowWhere, columnWhere }: MovedRecords): Task<Mover[]> {
    const wheres = [rowWhere, columnWhere];
    const { now, then } = yield* sidesFor(wheres);
    return moversOf(yield* now(wheres), yield* then(wheres), matched, changedNow);
  }
  return {
    movers,
    *trace(moved) {
      const found = yield* movers(moved);
      const counts = { came: 0, went: 0, changed: 0 };
      for (const mover of found) counts[howOf(mover)]++;
      return {
        added: counts.came,
        gone: counts.went,
        changed: counts.changed,
        records: found.flatMap(({ now, isIn }) => (isIn ? [now] : [])).sort((a, b) => a - b),
        amounts: amountsOf(moved, input.table, before.table, found),
      };
    },
  };
}

const flagsOf = (length: number, records: Int32Array): Uint8Array => {
  const flags = new Uint8Array(length);
  for (const i of records) flags[i] = 1;
  return flags;
};

type Wheres = readonly (Condition | undefined)[];

/** Asks of some records which of them are in a figure. */
type Asker = (wheres: Wheres) => Task<Side>;

interface Sides {
  readonly now: Asker;
  readonly then: Asker;
}

function* asker(
  input: TallyInput,
  selection: Bitset,
  isOne: (record: number) => boolean,
): Task<Asker> {
  const { length } = input.table;
  const found: number[] = [];
  const places = new Int32Array(length).fill(-1);
  yield* inStretches(length, (from, to) => {
    for (let i = from; i < to; i++) if (isOne(i)) places[i] = found.push(i) - 1;
  });
  const records = new Int32Array(found);
  const whole = records.length === length;
  const table: Table = whole ? input.table : yield* takingAll(input.table, records);
  const selected = whole ? selection : selectedAt(records, selection);
  return function* (wheres) {
    return { records, places, within: yield* recordsWithin({ table }, selected, wheres) };
  };
}

function selectedAt(records: Int32Array, selection: Bitset): Bitset {
  const out = emptyBitset(records.length);
  records.forEach((record, k) => {
    if (has(selection, record)) add(out, k);
  });
  return out;
}

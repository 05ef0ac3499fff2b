import { isLocal, type Condition } from '../../scope/condition';
import { takingAll } from '../../prepare/reshape';
import { finish } from '../../steps/steps';
import { add, emptyBitset, has, type Bitset } from '../../table/bitset';
import type { Table } from '../../table/table';
import { selectionOf, type Base } from '../base';
import { recordsWithin } from '../recordsWithin';
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
  movers(moved: MovedRecords): Mover[];
  trace(moved: MovedRecords): Traced;
}

/**
 * Finds the records that moved a figure, counts them, and says what each sort moved it by. A
 * record that is the same in both readings, and counts in both or in neither, moves no figure whose
 * conditions ask each record by itself: only the others are looked at.
 */
export function tracer(base: Base, before: Base, spec: ComparisonSpec, matched: Matched): Tracer {
  const { scope } = spec.tally;
  const [selected, selectedThen] = [selectionOf(base, scope), selectionOf(before, scope)];
  const [changedNow, changedThen] = [
    flagsOf(base.table.length, matched.changed.after),
    flagsOf(before.table.length, matched.changed.before),
  ];
  const { older, newer } = matched;
  const movers = once(() => ({
    now: asker(base, selected, (i) => {
      const old = older[i];
      return old < 0 || changedNow[i] === 1 || has(selected, i) !== has(selectedThen, old);
    }),
    then: asker(before, selectedThen, (i) => {
      const next = newer[i];
      return next < 0 || changedThen[i] === 1 || has(selectedThen, i) !== has(selected, next);
    }),
  }));
  const all = once(() => ({
    now: asker(base, selected, () => true),
    then: asker(before, selectedThen, () => true),
  }));
  const moversFor = (moved: MovedRecords): Mover[] => {
    const wheres = [moved.rowWhere, moved.columnWhere];
    const { now, then } = wheres.every((where) => !where || isLocal(where)) ? movers() : all();
    return moversOf(now(wheres), then(wheres), matched, changedNow);
  };
  return {
    movers: moversFor,
    trace(moved) {
      const found = moversFor(moved);
      const counts = { came: 0, went: 0, changed: 0 };
      for (const mover of found) counts[howOf(mover)]++;
      return {
        added: counts.came,
        gone: counts.went,
        changed: counts.changed,
        records: found.flatMap(({ now, isIn }) => (isIn ? [now] : [])).sort((a, b) => a - b),
        amounts: amountsOf(moved, base.table, before.table, found),
      };
    },
  };
}

const flagsOf = (length: number, records: Int32Array): Uint8Array => {
  const flags = new Uint8Array(length);
  for (const i of records) flags[i] = 1;
  return flags;
};

function once<T>(make: () => T): () => T {
  let made: { readonly it: T } | null = null;
  return () => (made ??= { it: make() }).it;
}

type Wheres = readonly (Condition | undefined)[];

/** Asks of some records which of them are in a figure. */
function asker(
  base: Base,
  selection: Bitset,
  isOne: (record: number) => boolean,
): (wheres: Wheres) => Side {
  const { length } = base.table;
  const found: number[] = [];
  for (let i = 0; i < length; i++) if (isOne(i)) found.push(i);
  const records = Int32Array.from(found);
  const places = new Int32Array(length).fill(-1);
  records.forEach((record, k) => (places[record] = k));
  const whole = records.length === length;
  const table: Table = whole ? base.table : finish(takingAll(base.table, records));
  const selected = whole ? selection : selectedAt(records, selection);
  return (wheres) => ({
    records,
    places,
    within: finish(recordsWithin({ table }, selected, wheres)),
  });
}

function selectedAt(records: Int32Array, selection: Bitset): Bitset {
  const out = emptyBitset(records.length);
  records.forEach((record, k) => {
    if (has(selection, record)) add(out, k);
  });
  return out;
}

import { inStretches, type Task } from '../task/task';
import {
  add,
  and,
  emptyBitset,
  fullBitset,
  or,
  popcount,
  remove,
  without,
  type Bitset,
} from '../table/bitset';
import { isText, type ScalarColumn } from '../table/column';
import { fullCell } from '../table/cell';
import { DistinctNumbers } from '../table/distinctNumbers';
import { placesWithin } from '../table/recordNumber';
import type { Table } from '../table/table';
import { columnsAsked, type Ladder, type Rung, type SetAside } from './condition';
import { recordsSelected } from '../table/recordCounts';
import { columnFor, columnInSteps } from '../expression/columnFor';
import { evaluate, type OutcomeCache } from './evaluate';

/** What one rung kept and removed. */
export interface RungResult {
  readonly id: string;
  readonly on: boolean;
  /** Records left after it. */
  readonly kept: number;
  readonly removed: number;
  /** Of those removed, how many were blank, and unread, in the columns asked. */
  readonly blank: number;
  readonly unread: number;
  readonly selection: Bitset;
}

/** all records → each rung that is on → set aside by hand → counted */
export interface LadderResult {
  readonly all: Bitset;
  readonly rungs: readonly RungResult[];
  /** What the rungs left, before setting aside. */
  readonly narrowed: Bitset;
  /** Set aside by hand, among what the rungs left. */
  readonly setAside: Bitset;
  readonly counted: Bitset;
}

/** What each rung of a ladder keeps, with pauses. @throws BadCondition, UnknownColumn */
export function* applyLadder(
  table: Table,
  ladder: Ladder,
  cache?: OutcomeCache,
): Task<LadderResult> {
  const all = fullBitset(table.length);
  let selection = all;
  const rungs: RungResult[] = [];
  for (const rung of ladder.rungs) {
    const result = yield* step(table, rung, selection, cache);
    rungs.push(result);
    selection = result.selection;
  }
  const setAside = and(selection, yield* setAsideBits(table, ladder.setAside));
  return { all, rungs, narrowed: selection, setAside, counted: without(selection, setAside) };
}

function* step(table: Table, rung: Rung, above: Bitset, cache?: OutcomeCache): Task<RungResult> {
  if (!rung.on)
    return {
      id: rung.id,
      on: false,
      kept: recordsSelected(table, above),
      removed: 0,
      blank: 0,
      unread: 0,
      selection: above,
    };
  const { yes, no } = yield* evaluate(table, rung.condition, above, cache);
  const unreadBits = unreadOf(table, rung);
  const selection = new Uint32Array(above.length);
  const records = recordsOfWord(table);
  let kept = 0;
  let removed = 0;
  let blank = 0;
  let unread = 0;
  for (let w = 0; w < above.length; w++) {
    const word = above[w] & yes[w];
    selection[w] = word;
    kept += records(w, word);
    const gone = above[w] & ~word;
    if (gone === 0) continue;
    removed += records(w, gone);
    const unknown = gone & ~no[w];
    if (unknown === 0) continue;
    const notRead = unreadBits ? unknown & unreadBits[w] : 0;
    unread += records(w, notRead);
    blank += records(w, unknown & ~notRead);
  }
  return { id: rung.id, on: true, kept, removed, blank, unread, selection };
}

/** How many records stand in a word of a set of rows: one each, unless the rows are weighted. */
function recordsOfWord({ weights }: Table): (w: number, word: number) => number {
  if (!weights) return (_, word) => popcount(word);
  return (w, word) => {
    let sum = 0;
    for (let bit = 0; bit < 32; bit++) if ((word >>> bit) & 1) sum += weights[w * 32 + bit];
    return sum;
  };
}

function unreadOf(table: Table, rung: Rung): Bitset | null {
  const columns = columnsAsked(rung.condition)
    .map((ref) => columnFor(table, ref))
    .filter((c): c is ScalarColumn => !isText(c) && c.unread.size > 0);
  if (columns.length === 0) return null;
  const bits = emptyBitset(table.length);
  for (const column of columns) for (const i of column.unread.keys()) add(bits, i);
  return bits;
}

/** Records set aside by number or by value, less those put back. Numbers past the end are ignored. */
export function* setAsideBits(table: Table, setAside: SetAside): Task<Bitset> {
  let bits = emptyBitset(table.length);
  for (const i of placesWithin(setAside.records, table.length)) add(bits, i);
  for (const { column, value } of setAside.values)
    bits = or(bits, yield* holding(table, column, value));
  for (const i of placesWithin(setAside.kept, table.length)) remove(bits, i);
  return bits;
}

/** Records whose cell, written in full, is this text; null: blank. */
export function* holding(table: Table, ref: string, value: string | null): Task<Bitset> {
  const column = yield* columnInSteps(table, ref);
  const bits = emptyBitset(table.length);
  if (isText(column)) {
    const { codes } = column;
    const code = value === null ? -1 : column.dictionary.indexOf(value);
    if (value !== null && code < 0) return bits;
    yield* inStretches(codes.length, (from, to) => {
      for (let i = from; i < to; i++) if (codes[i] === code) add(bits, i);
    });
    return bits;
  }
  const { values, unread } = column;
  // Each value is written once.
  const met = new DistinctNumbers(values.length);
  const isSame: boolean[] = [];
  const written = (v: number, i: number): boolean =>
    (isSame[met.placeOf(v)] ??= fullCell(column, i) === value);
  yield* inStretches(values.length, (from, to) => {
    for (let i = from; i < to; i++) {
      const v = values[i];
      const same =
        v === v
          ? written(v, i)
          : unread.size > 0 && unread.has(i)
            ? unread.get(i) === value
            : value === null;
      if (same) add(bits, i);
    }
  });
  return bits;
}

import { columnFor } from '../../expression/columnFor';
import { fullCell } from '../../table/cell';
import type { Column } from '../../table/column';
import { findColumn, type Table } from '../../table/table';

/** How the records of two readings correspond; record numbers from 0. */
export interface Matched {
  /** In the newer reading only. */
  readonly added: Int32Array;
  /** In the older reading only. */
  readonly gone: Int32Array;
  /** In both with another value somewhere: newer and older numbers side by side. */
  readonly changed: { readonly after: Int32Array; readonly before: Int32Array };
  readonly same: number;
  /** For each newer record the older one that it is, −1 for none; and the other way. */
  readonly older: Int32Array;
  readonly newer: Int32Array;
}

/**
 * Matches records by equal keys; where a key stands several times, in the order of the records.
 * Without keys whole records are matched, so that nothing counts as changed.
 * @param columns the columns both readings have, compared cell by cell in full
 */
export function matchRecords(before: Table, after: Table, keys: readonly string[]): Matched {
  const shared = after.columns.filter((c) => findColumn(before.columns, c.id) !== null);
  const keyColumns = (table: Table): Column[] =>
    keys.length
      ? keys.map((ref) => columnFor(table, ref))
      : shared.map((c) => columnFor(table, c.id));
  const waiting = new Map<string, number[]>();
  const olderKeys = keyColumns(before);
  for (let i = 0; i < before.length; i++) {
    const key = keyOf(olderKeys, i);
    const list = waiting.get(key);
    if (list) list.push(i);
    else waiting.set(key, [i]);
  }
  const [added, changedAfter, changedBefore]: number[][] = [[], [], []];
  const taken = new Map<string, number>();
  const older = new Int32Array(after.length).fill(-1);
  const newer = new Int32Array(before.length).fill(-1);
  const newerKeys = keyColumns(after);
  const pairs = shared.map((c) => [columnFor(before, c.id), c] as const);
  let same = 0;
  for (let i = 0; i < after.length; i++) {
    const key = keyOf(newerKeys, i);
    const at = taken.get(key) ?? 0;
    const old = waiting.get(key)?.[at];
    if (old === undefined) {
      added.push(i);
      continue;
    }
    taken.set(key, at + 1);
    older[i] = old;
    newer[old] = i;
    if (pairs.some(([a, b]) => fullCell(a, old) !== fullCell(b, i))) {
      changedAfter.push(i);
      changedBefore.push(old);
    } else same++;
  }
  const gone = Array.from(newer.keys()).filter((i) => newer[i] < 0);
  return {
    added: Int32Array.from(added),
    gone: Int32Array.from(gone),
    changed: { after: Int32Array.from(changedAfter), before: Int32Array.from(changedBefore) },
    same,
    older,
    newer,
  };
}

const keyOf = (columns: readonly Column[], record: number): string =>
  columns.map((c) => fullCell(c, record)).join('\u001f');

import { columnInSteps } from '../../../expression/columnFor';
import type { Task } from '../../../task/task';
import { inStretches } from '../../../task/task';
import { columnOf, findColumn, type Table } from '../../../table/table';
import { codesOfCells, codesTogether, sameCells, type Codes } from './cellCodes';

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
 * Without keys whole records are matched, so that nothing counts as changed. The columns that both
 * readings have are compared, cell by cell in full.
 */
export function* matchRecords(before: Table, after: Table, keys: readonly string[]): Task<Matched> {
  const shared = after.columns.filter((c) => findColumn(before.columns, c.id) !== null);
  const codes = yield* keyCodes(before, after, keys.length ? keys : shared.map((c) => c.id));
  const { older, newer } = yield* paired(codes);
  const pairs = shared.map((c) => sameCells(columnOf(before, c.id), c));
  const [added, changedAfter, changedBefore]: number[][] = [[], [], []];
  let same = 0;
  yield* inStretches(after.length, (from, to) => {
    for (let i = from; i < to; i++) {
      const old = older[i];
      if (old < 0) {
        added.push(i);
        continue;
      }
      let changed = false;
      for (let p = 0; p < pairs.length && !changed; p++) changed = !pairs[p](old, i);
      if (changed) {
        changedAfter.push(i);
        changedBefore.push(old);
      } else same++;
    }
  });
  const gone: number[] = [];
  yield* inStretches(before.length, (from, to) => {
    for (let i = from; i < to; i++) if (newer[i] < 0) gone.push(i);
  });
  return {
    added: new Int32Array(added),
    gone: new Int32Array(gone),
    changed: { after: new Int32Array(changedAfter), before: new Int32Array(changedBefore) },
    same,
    older,
    newer,
  };
}

/** The key of each record as one number, the same for equal keys of both readings. */
function* keyCodes(before: Table, after: Table, keys: readonly string[]): Task<Codes> {
  const lengths = { older: before.length, newer: after.length };
  let all: Codes | null = null;
  for (const ref of keys) {
    const [then, now] = [yield* columnInSteps(before, ref), yield* columnInSteps(after, ref)];
    const codes = yield* codesOfCells(then, now, lengths);
    all = all ? yield* codesTogether(all, codes) : codes;
  }
  // Without any column there is one key for all.
  return (
    all ?? {
      older: new Int32Array(before.length),
      newer: new Int32Array(after.length),
      size: 1,
    }
  );
}

/** Records of one key in their order, one of the older reading for each of the newer. */
function* paired({ older: keys, newer: newerKeys, size }: Codes): Task<{
  older: Int32Array;
  newer: Int32Array;
}> {
  const first = new Int32Array(size).fill(-1);
  const next = new Int32Array(keys.length);
  // From the last one up, so that a key leads to its first record.
  yield* inStretches(keys.length, (from, to) => {
    for (let k = from; k < to; k++) {
      const i = keys.length - 1 - k;
      next[i] = first[keys[i]];
      first[keys[i]] = i;
    }
  });
  const older = new Int32Array(newerKeys.length).fill(-1);
  const newer = new Int32Array(keys.length).fill(-1);
  yield* inStretches(newerKeys.length, (from, to) => {
    for (let i = from; i < to; i++) {
      const old = first[newerKeys[i]];
      if (old < 0) continue;
      first[newerKeys[i]] = next[old];
      older[i] = old;
      newer[old] = i;
    }
  });
  return { older, newer };
}

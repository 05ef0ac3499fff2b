import { fullCell } from '../table/cell';
import { isMissing, isText, type Column } from '../table/column';
import { inStretches, type Task } from '../task/task';
import { recordNumber } from '../table/recordNumber';
import type { Table } from '../table/table';
import { carryRecords } from './carry';
import { cellKey, recordKey, sharedColumns } from './recordKeys';

/** Records of a new file that a list has already. */
export interface Overlap {
  /** Their numbers in the file, from 1, rising. */
  readonly records: readonly number[];
  /** How many of them have other values than the list in a column besides the key; 0 where all columns are compared. */
  readonly differing: number;
  /** The first of them, as they stand in the file and in the list. */
  readonly first: readonly {
    readonly record: number;
    readonly there: number;
    readonly words: string;
  }[];
}

/** So many are shown. */
const SHOWN = 6;

/**
 * The records of a file that a list has already: those with a key that a record of the list has, or those
 * that are the same in every column. Without a key one record of the list answers for one of the file: of
 * two equal ones in the file the second is new where the list has one. A record whose key is blank is new.
 * @param key the columns that tell a record, by their ids; empty compares all columns
 */
export function* overlapOf(list: Table, file: Table, key: readonly string[]): Task<Overlap> {
  const found = key.length ? yield* byKey(list, file, key) : yield* byWhole(list, file);
  const records = [...found.keys()].sort((a, b) => a - b);
  const pairs = sharedColumns(file.columns, list.columns);
  const [own, others] = [pairs.map(([a]) => a), pairs.map(([, b]) => b)];
  let differing = 0;
  if (key.length)
    yield* inStretches(records.length, (begin, end) => {
      for (let k = begin; k < end; k++) {
        const there = found.get(records[k]) ?? 0;
        if (recordKey(own, records[k] - 1) !== recordKey(others, there - 1)) differing++;
      }
    });
  const named = file.columns.slice(0, 4);
  return {
    records,
    differing,
    first: records.slice(0, SHOWN).map((record) => ({
      record,
      there: found.get(record) ?? 0,
      words: named.map((column) => fullCell(column, record - 1) || 'blank').join(', '),
    })),
  };
}

const byWhole = (list: Table, file: Table): Task<Map<number, number>> =>
  carryRecords(
    file,
    list,
    Array.from({ length: file.length }, (_, i) => recordNumber(i)),
  );

/** Numbers of records of the list by those of the file with the same key; the first of several. */
function* byKey(list: Table, file: Table, key: readonly string[]): Task<Map<number, number>> {
  const pairs = sharedColumns(file.columns, list.columns).filter(([{ id }]) => key.includes(id));
  const out = new Map<number, number>();
  if (pairs.length < key.length) return out;
  const [own, others] = [pairs.map(([a]) => a), pairs.map(([, b]) => b)];
  const first = new Map<string, number>();
  yield* inStretches(list.length, (begin, end) => {
    for (let j = begin; j < end; j++) {
      const text = recordKey(others, j);
      if (!first.has(text)) first.set(text, recordNumber(j));
    }
  });
  yield* inStretches(file.length, (begin, end) => {
    for (let i = begin; i < end; i++) {
      if (own.some((column) => isMissing(column, i))) continue;
      const there = first.get(recordKey(own, i));
      if (there !== undefined) out.set(recordNumber(i), there);
    }
  });
  return out;
}

/** Columns that are tried together at most. */
const MOST_TOGETHER = 12;

/**
 * What may tell a record of a list: each column of which no value stands twice and none is blank, in the list's
 * order; where there is none, the fewest that do it together, the first columns kept where others can go. Measured
 * numbers are none.
 * @returns ids, a run for each way; empty where records cannot be told by their columns
 * @example finish(keyColumnsOf(sailings)) // [['route', 'sailed_on', 'time']]
 */
export function* keyColumnsOf(list: Table): Task<string[][]> {
  const candidates = list.columns.filter(
    (column) => isText(column) || column.type !== 'number' || column.decimals === 0,
  );
  const single: string[][] = [];
  for (const column of candidates)
    if (yield* tellsRecords(list, [column])) single.push([column.id]);
  if (single.length) return single;
  let together = candidates.slice(0, MOST_TOGETHER);
  if (together.length < 2 || !(yield* tellsRecords(list, together))) return [];
  for (const column of together.toReversed()) {
    const fewer = together.filter((c) => c !== column);
    if (yield* tellsRecords(list, fewer)) together = fewer;
  }
  return [together.map(({ id }) => id)];
}

/** Whether no two records have the same values of these columns, and none is blank. */
function* tellsRecords({ length }: Table, columns: readonly Column[]): Task<boolean> {
  const seen = new Set<string | number>();
  const [only] = columns;
  let tells = length > 0;
  yield* inStretches(length, (begin, end) => {
    for (let i = begin; tells && i < end; i++) {
      const value = columns.length === 1 ? cellKey(only, i) : recordKey(columns, i);
      tells = !seen.has(value) && columns.every((column) => !isMissing(column, i));
      seen.add(value);
    }
  });
  return tells;
}

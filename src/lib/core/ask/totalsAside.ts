import { prepareTable } from './prepare';
import { takingAll } from '../prepare/reshape';
import { carryRecords } from '../read/carry';
import { findTotals } from '../read/totals';
import { findColumn, type Table } from '../table/table';
import { fullCell } from '../table/cell';
import { recordNumber, recordPlace } from '../table/recordNumber';
import type { Task } from '../task/task';
import type { Question } from './question';

/** What of a question numbers its records. */
type Asked = Pick<Question, 'reshape' | 'ladder'>;

/** The records that a question counts: those of its list, stacked where it stacks them. */
export function* reshaped(table: Table, { reshape }: Asked): Task<Table> {
  if (reshape.length === 0) return table;
  const prepared = yield* prepareTable(table, { reshape, joins: [], computed: [] }, new Map());
  return prepared.table;
}

/** Records of a list by the numbers that a question gives them. */
export function* asCounted(doc: Asked, table: Table, records: readonly number[]): Task<number[]> {
  if (doc.reshape.length === 0 || records.length === 0) return [...records];
  const some = yield* takingAll(table, Int32Array.from(records, recordPlace));
  const own = yield* reshaped(some, doc);
  const all = Array.from({ length: own.length }, (_, i) => recordNumber(i));
  return [...(yield* carryRecords(own, yield* reshaped(table, doc), all)).values()];
}

/** Numbers of the records that look like totals inside a list, from 1. */
export function* totalsOf(table: Table): Task<number[]> {
  return (yield* findTotals(table)).map(({ record }) => recordNumber(record));
}

/**
 * The records that look like totals inside a list, where a question has set all of them aside: what was decided
 * about them at one reading holds at the others. Empty where it has not, or where there are none.
 * @returns as the question numbers them
 */
export function* totalsSetAside(doc: Asked, table: Table): Task<number[]> {
  const { records, values, kept } = doc.ladder.setAside;
  if (records.length === 0 && values.length === 0) return [];
  const totals = yield* asCounted(doc, table, yield* totalsOf(table));
  const counted = yield* reshaped(table, doc);
  const aside = new Set(records);
  const back = new Set(kept);
  const byValue = (n: number): boolean =>
    values.some(({ column: ref, value }) => {
      const column = findColumn(counted.columns, ref);
      return column !== null && (fullCell(column, recordPlace(n)) || null) === value;
    });
  const all = totals.every((n) => !back.has(n) && (aside.has(n) || byValue(n)));
  return all ? totals : [];
}

/** The same with records of the list set aside besides those that are. @param numbers of records of the list */
export function* withAside<T extends Asked>(
  doc: T,
  table: Table,
  numbers: readonly number[],
): Task<T> {
  if (numbers.length === 0) return doc;
  const { setAside } = doc.ladder;
  const more = yield* asCounted(doc, table, numbers);
  const records = [...new Set([...setAside.records, ...more])].sort((a, b) => a - b);
  return { ...doc, ladder: { ...doc.ladder, setAside: { ...setAside, records } } };
}

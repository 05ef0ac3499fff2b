import type { Condition } from '../../../selection/condition';
import { numbersOf } from '../../../task/arrays';
import { inStretches, type Task } from '../../../task/task';
import { and, type Bitset } from '../../../table/bitset';
import { selectedInSteps } from '../../../table/recordOrder';
import { recordPlace } from '../../../table/recordNumber';
import type { AnswerTable } from '../../answer/answer';
import type { TallyInput } from '../../input/input';
import { MOST_TOLD, type CarriedFrom } from '../../groups/carriedFrom';
import { recordsWithin } from '../../input/recordsWithin';
import { standsOn } from '../../behind/recordsBehind';
import { anyOf } from '../../spec/whereCondition';

/** The results that a tally is made of. */
export interface Results {
  /** The results as a list of their own, and which row of the inner table each is. */
  readonly list: TallyInput;
  readonly table: AnswerTable;
  readonly rows: readonly number[];
  /** What the inner table was computed from, and which of its records. */
  readonly input: TallyInput;
  readonly selection: Bitset;
}

/** What a tally of results stands on: the records behind the results that it would stand on by itself. */
export function behindResults(
  results: Results,
  of: AnswerTable,
): Pick<AnswerTable, 'where' | 'stands' | 'recordsOf' | 'carried'> {
  const { list } = results;
  const { recordsOf } = of;
  return {
    *where(n) {
      const { where } = of.row(n);
      return where && (yield* whereOfResults(results, yield* resultsWithin(results, where)));
    },
    *stands(n, at) {
      const figure = { table: of, n, row: of.row(n), column: of.columns[at], at };
      const { rows, records } = yield* standsOn(list, list.all, figure);
      return { ...(yield* behindThem(results, yield* selectedInSteps(records))), rows };
    },
    // What the table would say of them by itself are results, not records.
    recordsOf:
      recordsOf &&
      function* (rows) {
        const places = yield* selectedInSteps(yield* recordsOf(rows));
        return (yield* behindThem(results, places)).records;
      },
    carried: undefined,
  };
}

/** The places of the results that meet a condition. */
function* resultsWithin({ list }: Results, where: Condition): Task<Int32Array> {
  if (where.kind === 'records' && !where.not) return Int32Array.from(where.records, recordPlace);
  return yield* selectedInSteps(yield* recordsWithin(list, list.all, [where]));
}

/** Results looked at between two pauses. */
const RESULTS = 4096;

/** What the records behind some results meet: those of any of them; none where a result is the whole. */
function* whereOfResults(
  { table, rows }: Results,
  places: Int32Array,
): Task<Condition | undefined> {
  const parts: Condition[] = [];
  const take = (where: Condition | undefined): void => {
    if (where) parts.push(where);
  };
  if (table.where) for (const place of places) take(yield* table.where(rows[place]));
  else
    yield* inStretches(
      places.length,
      (from, to) => {
        for (let k = from; k < to; k++) take(table.row(rows[places[k]]).where);
      },
      RESULTS,
    );
  if (parts.length < places.length) return undefined;
  return parts.length ? anyOf(parts) : { kind: 'records', not: false, records: [] };
}

/** What some results stand on. */
function* behindThem(results: Results, places: Int32Array): Task<CarriedFrom> {
  const { input, selection, table, rows } = results;
  const told = places.length <= MOST_TOLD;
  const where = told || !table.recordsOf ? yield* whereOfResults(results, places) : undefined;
  const records = table.recordsOf
    ? and(
        selection,
        yield* table.recordsOf(yield* numbersOf(places.length, (k) => rows[places[k]])),
      )
    : yield* recordsWithin(input, selection, [where]);
  return { rows: 1, records, where: (told && where) || null };
}

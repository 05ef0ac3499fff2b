import type { Condition } from '../../scope/condition';
import { numbersOf } from '../../steps/arrays';
import { inStretches, type Steps } from '../../steps/steps';
import { and, type Bitset } from '../../table/bitset';
import { selectedInSteps } from '../../table/recordOrder';
import { recordPlace } from '../../table/recordNumber';
import type { AnswerTable } from '../answer';
import type { Base } from '../base';
import { MOST_TOLD, type Reached } from '../reached';
import { recordsWithin } from '../recordsWithin';
import { anyOf } from '../whereCondition';

/** The results that a tally is made of. */
export interface Results {
  /** The results as a list of their own, and which row of the inner table each is. */
  readonly list: Base;
  readonly table: AnswerTable;
  readonly rows: readonly number[];
  /** What the inner table was computed from, and which of its records. */
  readonly base: Base;
  readonly selection: Bitset;
}

/** What the rows of a tally of results stand on: the records behind those results. */
export function behindResults(
  results: Results,
  of: AnswerTable,
): Pick<AnswerTable, 'where' | 'stands' | 'reached'> {
  const ownWhere = function* (n: number): Steps<Condition | undefined> {
    return of.where ? yield* of.where(n) : of.row(n).where;
  };
  const { reached } = of;
  return {
    *where(n) {
      const own = yield* ownWhere(n);
      return own && (yield* whereOfResults(results, yield* resultsWithin(results, own)));
    },
    *stands(n) {
      return yield* standsOn(results, yield* resultsWithin(results, yield* ownWhere(n)));
    },
    reached:
      reached &&
      function* (n) {
        const found = yield* reached(n);
        return found && (yield* standsOn(results, yield* selectedInSteps(found.records)));
      },
  };
}

/** The places of the results that meet a condition; of all where there is none. */
function* resultsWithin({ list }: Results, where: Condition | undefined): Steps<Int32Array> {
  if (where?.kind === 'records' && !where.not) return Int32Array.from(where.records, recordPlace);
  return yield* selectedInSteps(yield* recordsWithin(list, list.all, [where]));
}

/** Results looked at between two pauses. */
const RESULTS = 4096;

/** What the records behind some results meet: those of any of them; none where a result is the whole. */
function* whereOfResults(
  { table, rows }: Results,
  places: Int32Array,
): Steps<Condition | undefined> {
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
function* standsOn(results: Results, places: Int32Array): Steps<Reached> {
  const { base, selection, table, rows } = results;
  const told = places.length <= MOST_TOLD;
  const where = told || !table.recordsOf ? yield* whereOfResults(results, places) : undefined;
  const records = table.recordsOf
    ? and(
        selection,
        yield* table.recordsOf(yield* numbersOf(places.length, (k) => rows[places[k]])),
      )
    : yield* recordsWithin(base, selection, [where]);
  return { rows: 1, records, where: (told && where) || null };
}

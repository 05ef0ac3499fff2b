import { BadCondition, UnknownColumn } from '../errors';
import { sortRecords } from '../arrange/sort';
import { expressionIn } from '../expression/reference';
import { correct, stillHolds, type Correction } from '../read/correct';
import type { Recipe } from '../read/recipe';
import type { Ladder } from '../selection/condition';
import type { Outcome } from '../selection/evaluate';
import { applyLadder, type LadderResult } from '../selection/ladder';
import { conditionWithListed } from '../selection/listed';
import { StepCache } from '../task/cache';
import type { Task } from '../task/task';
import { type Table } from '../table/table';
import { recordsInSteps, type TallyInput } from '../tally/input/input';
import { checkCondition } from '../tally/spec/checkCondition';
import { Faults, type Fault } from '../tally/spec/fault';
import { TallyMemo } from '../tally/kind/memo';
import { isWithin } from '../tally/spec/faultPath';
import type { Warning } from '../tally/trust/warnings';
import { prepareTable, type Prepared, type Unjoined } from './prepare';
import type { Question } from './question';
import { followsCounted, withResultLists, type ResultLists } from './resultLists';

/** A list and what a question about it may speak of besides. */
export interface AskedList {
  readonly name: string;
  readonly table: Table;
  /** How the list was read, for cells put right by hand. */
  readonly recipe?: Recipe | undefined;
  /** The other lists, by the names the question gives them. */
  readonly others: ReadonlyMap<string, Table>;
}

/** What a question comes to: what every tally is computed from. */
export interface Resolved {
  readonly question: Question;
  /** The list as it was read, with its corrections. */
  readonly list: Table;
  /** The cells that were put right, their columns named by their ids. */
  readonly corrections: readonly Correction[];
  readonly input: TallyInput;
  /** The ladder as it was applied: steps that do not fit are off, values of other lists written out. */
  readonly given: Ladder;
  readonly ladder: LadderResult;
  /** Everything that does not fit the list, by its path in the question. It takes no part. */
  readonly faults: readonly Fault[];
  /** Of those, the ones of lists, corrections and preparations, on which others may follow. */
  readonly firstFaults: readonly Fault[];
  /** For each join, how many records found nothing. */
  readonly unjoined: readonly Unjoined[];
  /** What should be known about joins, stacking, computed columns and linked lists. */
  readonly warnings: readonly Warning[];
}

interface Kept<T> {
  readonly key: string;
  readonly value: T;
}

/**
 * The steps of resolving questions of one list, each kept until what it rests on changes. It belongs to whoever
 * asks again and again: a bench's engine has one, a single ask has none.
 */
export class ResolveCache {
  corrected: Kept<Table> | null = null;
  prepared: Kept<Prepared> | null = null;
  lists: Kept<ResultLists> | null = null;
  /** Lists that follow what is counted. */
  later: Kept<ResultLists> | null = null;
  memo: Kept<TallyMemo> | null = null;
  outcomes = new StepCache<Outcome>(12);
  ladders = new StepCache<LadderResult>(4);
  orders = new StepCache<Int32Array>(2);
  /** The other lists as they came, to see whether they changed. */
  others: ReadonlyMap<string, Table> | null = null;

  /** Forgets what rests on the table. */
  forgetTable(): void {
    this.outcomes = new StepCache(12);
    this.ladders = new StepCache(4);
    this.orders = new StepCache(2);
    this.memo = null;
  }
}

/**
 * Corrects, prepares, narrows and orders a list as a question says. What does not fit is told by its
 * path, takes no part, and stops nothing.
 * @example
 * const { input, faults } = finish(resolve({ name: 'Sailings', table, others: new Map() }, Question.parse({})));
 */
export function* resolve(
  list: AskedList,
  question: Question,
  cache: ResolveCache = new ResolveCache(),
): Task<Resolved> {
  if (cache.others !== list.others) {
    cache.others = list.others;
    cache.lists = null;
    cache.later = null;
    cache.prepared = null;
  }
  const faults = new Faults(list.table.columns);
  const { table: table0, corrections } = corrected(list, question, faults, cache);
  const listsKey = JSON.stringify(question.lists);
  if (cache.lists?.key !== listsKey)
    cache.lists = { key: listsKey, value: yield* withResultLists(list, question) };
  const lists = cache.lists.value;
  const { others } = lists;
  const { reshape, joins, computed } = question;
  const preparedKey = JSON.stringify([
    question.corrections,
    reshape,
    joins,
    computed,
    // Other lists are looked at by joins alone.
    joins.length ? listsKey : '',
  ]);
  if (cache.prepared?.key !== preparedKey) {
    cache.prepared = { key: preparedKey, value: yield* prepareTable(table0, question, others) };
    cache.forgetTable();
  }
  const prepared = cache.prepared.value;
  const { table } = prepared;
  const firstFaults = [...faults.found, ...lists.faults, ...prepared.faults];
  yield undefined;
  const found = new Faults(table.columns, table.length);
  const given = fittingLadder(question, table, others, found);
  const ladderKey = JSON.stringify(given);
  const ladder = yield* cache.ladders.onceInSteps(ladderKey, () =>
    applyLadder(table, given, cache.outcomes),
  );
  yield undefined;
  yield* recordsInSteps(ladder.counted);
  question.sort.forEach((key, k) => found.column(`sort[${k}].column`, key.column));
  const sort = question.sort.filter((_, k) => !isAtFault(found, `sort[${k}]`));
  const orderKey = JSON.stringify(sort);
  let order = cache.orders.get(orderKey);
  if (!order) cache.orders.set(orderKey, (order = yield* sortRecords(table, sort)));
  if (cache.memo?.key !== orderKey) cache.memo = { key: orderKey, value: new TallyMemo() };
  const input: TallyInput = {
    listName: list.name,
    table,
    all: ladder.all,
    narrowed: ladder.narrowed,
    counted: ladder.counted,
    order,
    sort,
    ladder: given,
    others,
    memo: cache.memo.value,
  };
  const later = yield* listsOfCounted(list, question, input, cache, [
    listsKey,
    preparedKey,
    ladderKey,
    orderKey,
  ]);
  return {
    question,
    list: table0,
    corrections,
    input: later ? { ...input, others: new Map([...others, ...later.others]) } : input,
    given,
    ladder,
    faults: [...firstFaults, ...found.found, ...(later?.faults ?? [])],
    firstFaults,
    unjoined: prepared.unjoined,
    warnings: [...lists.warnings, ...prepared.warnings, ...(later?.warnings ?? [])],
  };
}

/** Lists that follow what is counted; null without any. */
function* listsOfCounted(
  list: AskedList,
  question: Question,
  input: TallyInput,
  cache: ResolveCache,
  keys: readonly string[],
): Task<ResultLists | null> {
  if (!Object.values(question.lists).some(followsCounted)) return null;
  const key = JSON.stringify(keys);
  if (cache.later?.key !== key)
    cache.later = {
      key,
      value: yield* withResultLists({ ...list, others: new Map() }, question, input),
    };
  return cache.later.value;
}

const isAtFault = (faults: Faults, path: string): boolean =>
  faults.found.some((fault) => isWithin(fault, path));

/** The list with the cells put right that are still there. */
function corrected(
  { table, recipe }: AskedList,
  { corrections }: Question,
  faults: Faults,
  cache: ResolveCache,
): { table: Table; corrections: readonly Correction[] } {
  const own = corrections.flatMap((correction, k): Correction[] => {
    const path = `corrections[${k}]`;
    if (expressionIn(correction.column) !== null) {
      faults.add(
        `${path}.column`,
        'An expression has no cells that could be put right.',
        'Name the column of the list whose cell it is.',
      );
      return [];
    }
    const column = faults.column(`${path}.column`, correction.column);
    if (!column) return [];
    if (correction.record > table.length) {
      faults.add(
        `${path}.record`,
        `There is no record ${correction.record}: the list has ${table.length}.`,
        'Take the correction out.',
      );
      return [];
    }
    const reads = recipe?.columns.find(({ id }) => id === column.id);
    if (stillHolds(column, reads, correction)) return [{ ...correction, column: column.id }];
    faults.add(
      `${path}.was`,
      `Record ${correction.record} no longer holds “${correction.was}” in ${column.name}: the correction was made on another text.`,
      'Take the correction out, or make it anew.',
    );
    return [];
  });
  if (own.length === 0 || !recipe) return { table, corrections: [] };
  const key = JSON.stringify(own);
  if (cache.corrected?.key !== key) cache.corrected = { key, value: correct(table, recipe, own) };
  return { table: cache.corrected.value, corrections: own };
}

/** The ladder with its other lists' values written out; a step that does not fit is off. */
function fittingLadder(
  { ladder }: Question,
  table: Table,
  others: ReadonlyMap<string, Table>,
  faults: Faults,
): Ladder {
  const rungs = ladder.rungs.map((rung, k) => {
    const path = `ladder.rungs[${k}].condition`;
    const id = rung.id || `rung ${k + 1}`;
    checkCondition(rung.condition, faults, path);
    try {
      const condition = conditionWithListed(rung.condition, others);
      return { ...rung, id, condition, on: rung.on && !isAtFault(faults, path) };
    } catch (error) {
      if (!(error instanceof BadCondition || error instanceof UnknownColumn)) throw error;
      faults.add(path, error.message, 'Name the list under “lists”, and a column that it has.');
      return { ...rung, id, on: false };
    }
  });
  const { setAside } = ladder;
  setAside.values.forEach(({ column }, k) =>
    faults.column(`ladder.setAside.values[${k}].column`, column),
  );
  for (const which of ['records', 'kept'] as const) {
    const beyond = setAside[which].find((n) => n > table.length);
    if (beyond !== undefined)
      faults.add(
        `ladder.setAside.${which}`,
        `There is no record ${beyond}: the list has ${table.length}.`,
        'Records are numbered from 1.',
      );
  }
  return {
    rungs,
    setAside: {
      ...setAside,
      values: setAside.values.filter((_, k) => !isAtFault(faults, `ladder.setAside.values[${k}]`)),
    },
  };
}

import { sortRecords } from '../arrange/sort';
import { BadBands } from '../arrange/bands';
import { footResult } from '../check/footResult';
import { describeCondition } from '../scope/describe';
import type { Ladder } from '../scope/condition';
import { climb, type LadderResult } from '../scope/ladder';
import { conditionWithListed, withListed } from '../scope/listed';
import { BadCondition } from '../scope/textTest';
import type { Steps } from '../steps/steps';
import { count } from '../table/bitset';
import { namesOf, UnknownColumn, type Table } from '../table/table';
import { BadBandList, withBandLists } from '../tally/bandLists';
import type { Base } from '../tally/base';
import { checkCondition } from '../tally/checkCondition';
import { Faults } from '../tally/fault';
import { TallyRefused } from '../tally/kind';
import { kindOf, reckonTally, type Tally } from '../tally/kinds';
import type { Ask } from './ask';
import { BadAsk } from './badAsk';
import { prepareTable } from './prepare';
import { withResultLists } from './resultLists';
import type { AskResult } from './result';

/** A tally whose data do not allow it, with its place in the ask. */
export class AskRefused extends Error {
  override name = 'AskRefused';
  constructor(
    readonly path: string,
    why: string,
  ) {
    super(`${path}: ${why}`);
  }
}

/** A list and what an ask may speak of besides. */
export interface AskedList {
  readonly name: string;
  readonly table: Table;
  /** The other lists of the ask, by their names there. */
  readonly others: ReadonlyMap<string, Table>;
}

/** What an ask stands on once its list is prepared: figures of its tallies can be opened with it. */
export interface Standing {
  readonly base: Base;
  readonly ladder: LadderResult;
  readonly result: AskResult;
}

/**
 * Answers an ask, wholly or not at all.
 * @throws BadAsk where it does not fit the list, AskRefused where the data do not allow a tally
 */
export function* answerAsk(given: AskedList, ask: Ask): Steps<Standing> {
  const made = yield* withResultLists(given, ask);
  const list: AskedList = { ...given, others: made.others };
  const prepared = yield* prepareTable(list.table, ask, list.others);
  const { table } = prepared;
  const resolved = checkAll(list, table, ask);
  const ladder = climb(table, resolved);
  yield undefined;
  const order = yield* sortRecords(table, ask.sort);
  const others = yield* preparedOthers(list, ask);
  const base: Base = {
    listName: list.name,
    table,
    all: ladder.all,
    narrowed: ladder.narrowed,
    counted: ladder.counted,
    order,
    ladder: resolved,
    others,
  };
  const tallies: AskResult['tallies'] = [];
  for (const [k, asked] of ask.tallies.entries()) {
    const tally = withLists(asked, list.others);
    try {
      const result = yield* reckonTally(base, tally);
      tallies.push({
        ...(tally.title !== undefined && { title: tally.title }),
        ...result,
        footing: footResult(base, result),
      });
    } catch (error) {
      if (
        error instanceof TallyRefused ||
        error instanceof BadBands ||
        error instanceof BadCondition ||
        error instanceof UnknownColumn
      )
        throw new AskRefused(`tallies[${k}]`, error.message);
      throw error;
    }
    yield (k + 1) / ask.tallies.length;
  }
  return {
    base,
    ladder,
    result: resultOf(
      list,
      table,
      resolved,
      ladder,
      [...made.warnings, ...prepared.warnings],
      tallies,
    ),
  };
}

/** Everything that does not fit the prepared list, all at once; the ladder with its lists resolved. */
function checkAll(list: AskedList, table: Table, ask: Ask): Ladder {
  const faults = new Faults(table.columns);
  ask.ladder.rungs.forEach((rung, k) =>
    checkCondition(rung.condition, faults, `ladder.rungs[${k}].condition`),
  );
  ask.ladder.setAside.values.forEach(({ column }, k) =>
    faults.column(`ladder.setAside.values[${k}].column`, column),
  );
  for (const which of ['records', 'kept'] as const) {
    const beyond = ask.ladder.setAside[which].find((i) => i >= table.length);
    if (beyond !== undefined)
      faults.add(
        `ladder.setAside.${which}`,
        `There is no record ${beyond}: the list has ${table.length}.`,
        'Record numbers count from 0.',
      );
  }
  ask.sort.forEach((key, k) => faults.column(`sort[${k}].column`, key.column));
  ask.tallies.forEach((given, k) => {
    const tally = withBandsOrFault(given, list.others, faults, `tallies[${k}]`);
    if (!tally) return;
    kindOf(tally).check(tally, faults, `tallies[${k}]`);
    if (tally.kind === 'comparison' && !list.others.has(tally.with))
      faults.add(
        `tallies[${k}].with`,
        `There is no list “${tally.with}”.`,
        'Name the older reading under “lists”.',
      );
  });
  let resolved: Ladder = {
    rungs: ask.ladder.rungs.map((r, k) => ({ ...r, id: r.id || `rung ${k + 1}` })),
    setAside: ask.ladder.setAside,
  };
  try {
    resolved = withListed(resolved, list.others);
    if (faults.found.length === 0) ask.tallies.forEach((tally) => withLists(tally, list.others));
  } catch (error) {
    if (!(error instanceof BadCondition || error instanceof UnknownColumn)) throw error;
    faults.add('lists', error.message, 'Name the list under “lists”, and a column that it has.');
  }
  if (faults.found.length) throw new BadAsk(faults.found);
  return resolved;
}

/** A tally with what it takes from other lists written out: values of conditions, and band tables. */
function withLists(tally: Tally, others: ReadonlyMap<string, Table>): Tally {
  return withListedValues(withBandLists(tally, others), others);
}

function withListedValues<T extends Tally>(tally: T, others: ReadonlyMap<string, Table>): T {
  switch (tally.kind) {
    case 'conditional':
      return {
        ...tally,
        rows: tally.rows.map((row) => ({
          ...row,
          condition: conditionWithListed(row.condition, others),
        })),
        columns: tally.columns.map((column) => ({
          ...column,
          ...(column.condition && { condition: conditionWithListed(column.condition, others) }),
        })),
      };
    case 'nested':
      return {
        ...tally,
        inner: withListedValues(tally.inner, others),
        outer: withListedValues(tally.outer, others),
      };
    case 'comparison':
      return { ...tally, tally: withListedValues(tally.tally, others) };
    default:
      return tally;
  }
}

function withBandsOrFault(
  tally: Tally,
  others: ReadonlyMap<string, Table>,
  faults: Faults,
  path: string,
): Tally | null {
  try {
    return withBandLists(tally, others);
  } catch (error) {
    if (!(error instanceof BadBandList || error instanceof UnknownColumn)) throw error;
    faults.add(path, error.message, 'Name the band table under “lists”, and its columns of edges.');
    return null;
  }
}

/** Older readings for comparisons get the same preparation as the list itself. */
function* preparedOthers(list: AskedList, ask: Ask): Steps<Map<string, Table>> {
  const out = new Map(list.others);
  const compared = new Set(ask.tallies.flatMap((t) => (t.kind === 'comparison' ? [t.with] : [])));
  for (const name of compared) {
    const other = list.others.get(name);
    if (other) out.set(name, (yield* prepareTable(other, ask, list.others)).table);
  }
  return out;
}

function resultOf(
  list: AskedList,
  table: Table,
  given: Ladder,
  ladder: LadderResult,
  prepared: AskResult['prepared'],
  tallies: AskResult['tallies'],
): AskResult {
  const names = namesOf(table);
  return {
    version: 1,
    list: {
      name: list.name,
      records: table.length,
      columns: table.columns.map(({ id, name, type, unit }) => ({ id, name, type, unit })),
    },
    counts: {
      all: table.length,
      rungs: ladder.rungs.map(({ on, kept, removed, blank, unread }, k) => ({
        says: describeCondition(given.rungs[k].condition, names),
        on,
        kept,
        removed,
        blank,
        unread,
      })),
      narrowed: count(ladder.narrowed),
      setAside: count(ladder.setAside),
      counted: count(ladder.counted),
    },
    prepared,
    tallies,
  };
}

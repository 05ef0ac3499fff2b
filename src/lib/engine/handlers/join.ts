import { checkJoin, joinTaken } from '../../core/ask/prepare';
import { EngineError, PrepareRefused } from '../../core/errors';
import { columnFor } from '../../core/expression/columnFor';
import { joinColumns, matchKeys, type KeyMatch } from '../../core/prepare/join';
import { keyGuesses } from '../../core/prepare/keyGuess';
import { taking } from '../../core/prepare/reshape';
import { idOfBrought, type JoinSpec } from '../../core/prepare/specs';
import { finish, inStretches, STRIDE, type Task } from '../../core/task/task';
import { fullCell, showCell } from '../../core/table/cell';
import { isMissing } from '../../core/table/column';
import { findColumn, type Table } from '../../core/table/table';
import { Faults } from '../../core/tally/spec/fault';
import type { Session } from '../session';
import type { ArgsOf, ReplyOf } from '../protocol';

type Match = ReplyOf<'match'>;

/** Keys that are listed, of each sort. */
const LISTED = 20;
/** Records shown with what they would get. */
const SHOWN = 5;

/** @throws EngineError where the bench does not have it at hand */
function otherList({ resolved }: Session, name: string): Table {
  const other = resolved.input.others.get(name);
  if (!other) throw new EngineError('noTally', `The list “${name}” is not at hand.`);
  return other;
}

/** Another list's columns, and by which of them it could meet this one. */
export function* answerOther(session: Session, { list }: ArgsOf<'other'>): Task<ReplyOf<'other'>> {
  const other = otherList(session, list);
  yield undefined;
  return {
    records: other.length,
    columns: other.columns.map(({ id, name, type, unit }) => ({ id, name, type, unit })),
    keys: keyGuesses(ownTable(session, null), other),
  };
}

/** The list without the columns that a join brought. */
function ownTable({ doc, table }: Session, at: number | null): Table {
  const brought = new Set(at === null ? [] : doc.joins[at]?.bring.map(idOfBrought));
  return { ...table, columns: table.columns.filter((c) => !brought.has(c.id)) };
}

/** How the keys of a join in the making meet, and what the first records would get. */
export function* answerMatch(session: Session, { spec, at }: ArgsOf<'match'>): Task<Match> {
  const table = ownTable(session, at);
  const faults = new Faults(table.columns);
  const other = checkJoin(spec, faults, session.resolved.input.others, 'join');
  joinTaken(spec, faults);
  const [fault] = faults.found;
  if (!other || (fault && !fault.path.includes('.bring')))
    return { fault: fault ?? null, meets: null, shown: null };
  // Which columns are brought changes nothing of how the keys meet.
  const key = JSON.stringify([spec.list, spec.on, spec.loose, at]);
  const match = yield* session.matches.onceInSteps(key, () => matchKeys(table, other, spec));
  yield undefined;
  const meets = yield* meetsOf(spec, table, other, match);
  if (fault) return { fault, meets, shown: null };
  try {
    return { fault: null, meets, shown: yield* shownOf(session, spec, table, other, match) };
  } catch (error) {
    if (!(error instanceof PrepareRefused)) throw error;
    return {
      fault: { path: 'join.bring', message: error.message, remedy: '' },
      meets,
      shown: null,
    };
  }
}

function* meetsOf(
  { on }: JoinSpec,
  table: Table,
  other: Table,
  { groups, groupOf, unmatched }: KeyMatch,
): Task<NonNullable<Match['meets']>> {
  const here = on.map((o) => columnFor(table, o.column));
  const there = on.map((o) => columnFor(other, o.with ?? o.column));
  const used = new Uint8Array(groups.length);
  const missing = new Map<string, number>();
  let blank = 0;
  const meet = (begin: number, end: number): void => {
    for (let i = begin; i < end; i++) {
      const group = groupOf[i];
      if (group >= 0) used[group] = 1;
      else if (here.some((c) => isMissing(c, i))) blank++;
      else {
        const key = here.map((c) => fullCell(c, i)).join(', ');
        missing.set(key, (missing.get(key) ?? 0) + 1);
      }
    }
  };
  yield* inStretches(groupOf.length, meet, STRIDE >> 2);
  const never = groups.filter((_, k) => used[k] === 0);
  const keyThere = (record: number): string => there.map((c) => fullCell(c, record)).join(', ');
  const repeated = groups.filter((g) => g.length > 1);
  return {
    records: table.length,
    matched: table.length - unmatched,
    blank,
    missing: [...missing]
      .toSorted((a, b) => b[1] - a[1])
      .slice(0, LISTED)
      .map(([key, records]) => ({ key, records })),
    missingKeys: missing.size,
    never: never.slice(0, LISTED).map(([first]) => keyThere(first)),
    neverKeys: never.length,
    repeated: repeated
      .slice(0, LISTED)
      .map((list) => ({ key: keyThere(list[0]), records: list.length })),
    repeatedKeys: repeated.length,
  };
}

function* shownOf(
  session: Session,
  spec: JoinSpec,
  table: Table,
  other: Table,
  match: KeyMatch,
): Task<Match['shown']> {
  const first = [...session.counted.subarray(0, SHOWN)];
  const keys = spec.on.flatMap((o) => findColumn(table.columns, o.column) ?? []);
  const few = { length: first.length, columns: keys.map((c) => finish(taking(c, first))) };
  const groupOf = Int32Array.from(first, (i) => match.groupOf[i]);
  const { columns } = yield* joinColumns(few, other, spec, (name) => name, { ...match, groupOf });
  const all = [...few.columns, ...columns];
  return {
    heads: all.map(({ name, unit, type }) => ({ name, unit, right: type === 'number' })),
    rows: first.map((record, k) => ({ record, cells: all.map((c) => showCell(c, k)) })),
  };
}

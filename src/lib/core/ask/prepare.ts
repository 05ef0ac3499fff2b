import { Circle, ExpressionError, PrepareRefused } from '../errors';
import { checkExpression } from '../expression/check';
import { computedColumn } from '../prepare/computedColumn';
import { joinColumns } from '../prepare/join';
import { inOrder, preparations, type Preparation } from '../prepare/order';
import { freeId, reshape } from '../prepare/reshape';
import {
  broughtAs,
  idOfComputed,
  type AcrossSpec,
  type ComputedSpec,
  type JoinSpec,
  type ReshapeSpec,
  WINDOW_TYPES,
  type WindowSpec,
} from '../prepare/specs';
import type { Task } from '../task/task';
import { TYPE_PHRASES, type Column } from '../table/column';
import { counted } from '../table/format';
import { recordsOfTable } from '../table/recordCounts';
import { findColumn, type Table } from '../table/table';
import { Faults, type Fault } from '../tally/spec/fault';
import { warn, type Warning } from '../tally/trust/warnings';
import type { Question } from './question';

/** Records of a list that found none in a list joined to it. */
export interface Unjoined {
  readonly list: string;
  readonly unmatched: number;
  readonly records: number;
}

/** They get blanks, and that is said. */
export const unjoinedWarning = ({ list, unmatched, records }: Unjoined): Warning =>
  warn(
    'not-joined',
    `${counted(unmatched, 'record')} of ${counted(records, 'record')} ${unmatched === 1 ? 'has' : 'have'} no match in “${list}” and ${unmatched === 1 ? 'gets a blank' : 'get blanks'}.`,
  );

export interface Prepared {
  readonly table: Table;
  /** For each join that was made. */
  readonly unjoined: readonly Unjoined[];
  readonly warnings: readonly Warning[];
  /** Preparations that do not fit; they are left out. */
  readonly faults: readonly Fault[];
}

/**
 * Reshapes a list and adds its joined and computed columns, each as soon as what it needs is there.
 * A preparation that does not fit is told and left out.
 */
export function* prepareTable(
  list: Table,
  question: Pick<Question, 'reshape' | 'joins' | 'computed'>,
  others: ReadonlyMap<string, Table>,
): Task<Prepared> {
  const faults: Fault[] = [];
  // A table of its own, so that what is kept with it goes when the question goes.
  let table: Table = { ...list };
  for (const [k, spec] of question.reshape.entries()) {
    const found = new Faults(table.columns);
    checkReshape(spec, found, `reshape[${k}]`);
    faults.push(...found.found);
    if (found.found.length === 0)
      table = (yield* attempt(`reshape[${k}]`, faults, reshape(table, spec))) ?? table;
    yield undefined;
  }
  const unjoined: Unjoined[] = [];
  for (const preparation of ordered(table, question, faults)) {
    const added = yield* perform(table, preparation, others, faults, unjoined);
    if (added.length) table = { ...table, columns: [...table.columns, ...added] };
  }
  const warnings = unjoined.filter(({ unmatched }) => unmatched > 0).map(unjoinedWarning);
  return { table, unjoined, warnings, faults };
}

function* attempt<T>(path: string, faults: Fault[], work: Task<T>): Task<T | null> {
  try {
    return yield* work;
  } catch (error) {
    if (!(error instanceof PrepareRefused)) throw error;
    faults.push({ path, message: error.message, remedy: '' });
    return null;
  }
}

function checkReshape(spec: ReshapeSpec, faults: Faults, path: string): void {
  if (spec.do === 'stack') {
    spec.columns.forEach((ref, k) => faults.column(`${path}.columns[${k}]`, ref));
    return;
  }
  faults.column(`${path}.name`, spec.name);
  faults.column(`${path}.value`, spec.value);
}

/** In the order in which each finds what it needs; those of a circle, or of a name that is taken, are left out. */
function ordered(
  table: Table,
  question: Pick<Question, 'joins' | 'computed'>,
  faults: Fault[],
): Preparation[] {
  const names = table.columns.flatMap((c) => [c.id, c.name]);
  const made = new Set<string>();
  let all = preparations(question.computed, question.joins).filter(({ path, makes }) => {
    const taken = makes.find((name) => made.has(name) || findColumn(table.columns, name));
    if (taken !== undefined)
      faults.push({
        path,
        message: `There is a column “${taken}” already.`,
        remedy: 'Give this one another name.',
      });
    makes.forEach((name) => made.add(name));
    return taken === undefined;
  });
  for (;;)
    try {
      return inOrder(all, names);
    } catch (error) {
      if (!(error instanceof Circle)) throw error;
      faults.push({
        path: error.path,
        message: error.message,
        remedy: 'Take one of them out of its own making.',
      });
      all = all.filter(({ makes }) => !makes.some((name) => error.names.includes(name)));
    }
}

function* perform(
  table: Table,
  { path, spec }: Preparation,
  others: ReadonlyMap<string, Table>,
  faults: Fault[],
  unjoined: Unjoined[],
): Task<Column[]> {
  const found = new Faults(table.columns);
  const idOf = (name: string): string => freeId(name, new Set(table.columns.map((c) => c.id)));
  if ('join' in spec) {
    const other = checkJoin(spec.join, found, others, path);
    faults.push(...found.found);
    if (!other || found.found.length) return [];
    const joined = yield* attempt(path, faults, joinColumns(table, other, spec.join, idOf));
    if (!joined) return [];
    unjoined.push({
      list: spec.join.list,
      unmatched: joined.unmatched,
      records: recordsOfTable(table),
    });
    yield undefined;
    return joined.columns;
  }
  const { computed } = spec;
  checkComputed(computed, found, path);
  faults.push(...found.found);
  if (found.found.length) return [];
  const facts = {
    id: idOf(idOfComputed(computed)),
    name: computed.name,
    unit: computed.unit,
  };
  return [yield* computedColumn(table, computed, facts)];
}

/** The other list where it is at hand; names what of a join does not fit the two. */
export function checkJoin(
  spec: JoinSpec,
  faults: Faults,
  others: ReadonlyMap<string, Table>,
  path: string,
): Table | null {
  const other = others.get(spec.list) ?? null;
  if (!other)
    faults.add(`${path}.list`, `There is no list “${spec.list}”.`, 'Name it under “lists”.');
  spec.on.forEach(({ column }, k) => faults.column(`${path}.on[${k}].column`, column));
  if (!other) return null;
  const there = new Faults(other.columns);
  spec.on.forEach((on, k) =>
    there.column(
      `${path}.on[${k}].${on.with === undefined ? 'column' : 'with'}`,
      on.with ?? on.column,
    ),
  );
  spec.bring.forEach(({ column }, k) => there.column(`${path}.bring[${k}].column`, column));
  faults.found.push(...there.found);
  return other;
}

/** Names columns of a join that would take the place of others. */
export function joinTaken({ bring }: JoinSpec, faults: Faults): void {
  const made = new Set<string>();
  bring.forEach((brought, k) => {
    const name = broughtAs(brought);
    if (made.has(name) || findColumn(faults.columns, name))
      faults.add(
        `join.bring[${k}]`,
        `There is a column “${name}” already.`,
        'Give this one another name.',
      );
    made.add(name);
  });
}

/** Measures that mean something across dates and times; a total of days does not. */
const OF_MOMENTS: readonly AcrossSpec['measure'][] = [
  'values',
  'blanks',
  'distinct',
  'min',
  'max',
  'median',
  'range',
  'second',
  'lead',
  'highestColumn',
  'lowestColumn',
];

/** Columns taken together are of one type: numbers and yes/no, or dates, or times. */
function checkAcross({ measure, columns }: AcrossSpec, faults: Faults, path: string): void {
  const found = columns.map((ref, k) =>
    faults.column(`${path}.columns[${k}]`, ref, ['number', 'yesno', 'date', 'datetime', 'time']),
  );
  const sort = ({ type }: Column): string => (type === 'yesno' ? 'number' : type);
  const first = found.find((c) => c !== null);
  const odd = found.findIndex((c) => c && first && sort(c) !== sort(first));
  if (first && odd >= 0)
    faults.add(
      `${path}.columns[${odd}]`,
      `“${first.name}” is ${TYPE_PHRASES[first.type]}, “${found[odd]?.name}” ${TYPE_PHRASES[found[odd]?.type ?? 'text']}: they cannot be taken together.`,
      'Take columns of one type.',
    );
  else if (first && sort(first) !== 'number' && !OF_MOMENTS.includes(measure))
    faults.add(
      `${path}.measure`,
      `“${first.name}” is ${TYPE_PHRASES[first.type]}: what is asked for has no meaning across such columns.`,
      `Take one of ${OF_MOMENTS.join(', ')}.`,
    );
}

function checkWindow({ figure, of, by, order }: WindowSpec, faults: Faults, path: string): void {
  if (of !== undefined) faults.column(`${path}.of`, of, WINDOW_TYPES[figure]);
  else if (figure !== 'number')
    faults.add(`${path}.of`, 'It is not said of which column.', 'Name the column it is of.');
  by.forEach((ref, k) => faults.column(`${path}.by[${k}]`, ref));
  order.forEach(({ column }, k) => faults.column(`${path}.order[${k}].column`, column));
}

/** Names what of a computed column does not fit the columns there are. */
export function checkComputed(spec: ComputedSpec, faults: Faults, path: string): void {
  const ways = [spec.expression, spec.across, spec.window].filter((way) => way !== undefined);
  if (ways.length !== 1) {
    faults.add(
      path,
      'A computed column is an expression, a measure across columns, or a figure within groups.',
      'Give one of “expression”, “across” and “window”.',
    );
    return;
  }
  if (spec.window) checkWindow(spec.window, faults, `${path}.window`);
  if (spec.across) checkAcross(spec.across, faults, `${path}.across`);
  if (spec.expression === undefined) return;
  try {
    checkExpression(spec.expression, faults.columns);
  } catch (error) {
    if (!(error instanceof ExpressionError)) throw error;
    faults.add(
      `${path}.expression`,
      `Character ${error.span.start + 1}: ${error.fault}`,
      error.remedy,
    );
  }
}

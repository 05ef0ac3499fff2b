import { AskRefused } from '../errors';
import { spokenOf } from '../expression/names';
import { makerOf, preparations } from '../prepare/order';
import type { Roles } from '../parts/condense';
import { rolesOf } from '../parts/roles';
import { columnsAsked } from '../selection/condition';
import { findColumn, type Table } from '../table/table';
import type { Task } from '../task/task';
import { needsWhole } from './answerParts';
import type { Ask } from './ask';
import { prepareTable } from './prepare';

/** An ask, and what it needs of each column of its list. */
export interface AskedOfParts {
  /** Without the preparations that no tally and no step looks at, which would need columns of their own. */
  readonly ask: Ask;
  readonly roles: Roles;
}

/**
 * What an ask needs of the columns of a list that groups its own records: those that are only added up, and those
 * whose values are kept: of groups and steps, of what is set aside by value, and of whatever columns are made of.
 * @param table the list's columns; no record is looked at
 * @throws AskRefused where the ask needs the list as a whole
 * @example
 * finish(askedOfParts(ask, table, new Map())).roles; // { kept: ['depot'], summed: ['fee'] }
 */
export function* askedOfParts(
  ask: Ask,
  table: Table,
  others: ReadonlyMap<string, Table>,
): Task<AskedOfParts> {
  const whole = needsWhole(ask) || (ask.reshape.length ? 'columns are stacked' : '');
  if (whole) throw new AskRefused('ask', `${whole}.`);
  const prepared = (yield* prepareTable(table, ask, others)).table;
  const needed = rolesOf(ask.tallies, prepared);
  if ('whole' in needed) throw new AskRefused('tallies', `${needed.whole}.`);
  const { rungs, setAside } = ask.ladder;
  const asked = [
    ...rungs.flatMap(({ condition }) => columnsAsked(condition)),
    ...setAside.values.map(({ column }) => column),
  ].flatMap(spokenOf);
  const makers = preparations(ask.computed, ask.joins);
  const used = new Set<string>();
  const kept = new Set<string>();
  const summed = new Set<string>();
  const trace = (name: string, into: Set<string>): void => {
    const own = findColumn(table.columns, name);
    // Only numbers are added up where they are; the rest are few values, or come as they are.
    if (own) return void (own.type === 'number' ? into : kept).add(own.id);
    const maker = makerOf(makers, name);
    if (!maker || used.has(maker.path)) return;
    used.add(maker.path);
    maker.needs.forEach((need) => trace(need, kept));
  };
  [...needed.roles.kept, ...asked].forEach((name) => trace(name, kept));
  needed.roles.summed.forEach((name) => trace(name, summed));
  const added = [...summed].filter((id) => !kept.has(id));
  const { squared = added } = needed.roles;
  return {
    ask: {
      ...ask,
      sort: [],
      computed: ask.computed.filter((_, k) => used.has(`computed[${k}]`)),
      joins: ask.joins.filter((_, k) => used.has(`joins[${k}]`)),
    },
    roles: { kept: [...kept], summed: added, squared: added.filter((id) => squared.includes(id)) },
  };
}

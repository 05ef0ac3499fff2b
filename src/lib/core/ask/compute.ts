import type { Steps } from '../steps/steps';
import type { Table } from '../table/table';
import type { Base } from '../tally/base';
import { evaluate, type Evaluated } from '../tally/evaluate';
import { kindOf } from '../tally/kinds';
import type { Tally } from '../tally/specs';
import { prepareTable } from './prepare';
import type { Stand } from './stand';
import { asCounted, totalsOf, totalsSetAside } from './totalsAside';

/**
 * Computes a tally on a stand. What does not fit is told and left out, and never stops the rest.
 * @example const { answer, faults } = finish(compute(stand, tally, 'tally'));
 */
export const compute = (stand: Stand, asked: Tally, path: string): Steps<Evaluated> =>
  evaluate(stand.base, asked, path, (base, tally) => withComparedLists(stand, base, tally));

/**
 * Older readings for comparisons get the same preparation as the list itself, and where its totals are set
 * aside, so are theirs.
 */
function* withComparedLists({ question, list }: Stand, base: Base, tally: Tally): Steps<Base> {
  const compared: string[] = [];
  kindOf(tally).visit({ list: (name) => void compared.push(name) }, '');
  if (compared.length === 0) return base;
  const others = new Map<string, Table>(base.others);
  const totalsAside = new Map<string, readonly number[]>();
  const aside = (yield* totalsSetAside(question, list)).length > 0;
  for (const name of compared) {
    const other = base.others.get(name);
    if (!other) continue;
    others.set(name, (yield* prepareTable(other, question, base.others)).table);
    if (aside) totalsAside.set(name, yield* asCounted(question, other, yield* totalsOf(other)));
  }
  return { ...base, others, totalsAside };
}

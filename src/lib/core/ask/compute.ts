import type { Task } from '../task/task';
import type { Table } from '../table/table';
import type { TallyInput } from '../tally/input/input';
import { evaluate, type Evaluated } from '../tally/kind/evaluate';
import { kindOf } from '../tally/kind/kinds';
import type { Tally } from '../tally/spec/specs';
import { prepareTable } from './prepare';
import type { Resolved } from './resolve';
import { asCounted, totalsOf, totalsSetAside } from './totalsAside';

/**
 * Computes a tally on a resolved question. What does not fit is told and left out, and never stops the rest.
 * @example const { answer, faults } = finish(compute(resolved, tally, 'tally'));
 */
export const compute = (resolved: Resolved, asked: Tally, path: string): Task<Evaluated> =>
  evaluate(resolved.input, asked, path, (input, tally) =>
    withComparedLists(resolved, input, tally),
  );

/**
 * Older readings for comparisons get the same preparation as the list itself, and where its totals are set
 * aside, so are theirs. Other lists are taken as they were read, without records that look like totals.
 */
function* withComparedLists(
  { question, list }: Resolved,
  input: TallyInput,
  tally: Tally,
): Task<TallyInput> {
  const compared: string[] = [];
  kindOf(tally).visit({ list: (name) => void compared.push(name) }, '');
  if (compared.length === 0) return input;
  const others = new Map<string, Table>(input.others);
  const totalsAside = new Map<string, readonly number[]>();
  const aside = (yield* totalsSetAside(question, list)).length > 0;
  for (const name of compared) {
    const other = input.others.get(name);
    if (!other) continue;
    if (kindOf(tally).ofOtherLists) {
      totalsAside.set(name, yield* totalsOf(other));
      continue;
    }
    others.set(name, (yield* prepareTable(other, question, input.others)).table);
    if (aside) totalsAside.set(name, yield* asCounted(question, other, yield* totalsOf(other)));
  }
  return { ...input, others, totalsAside };
}

import { BadBandList, BadBands, BadCondition, TallyRefused, UnknownColumn } from '../errors';
import { columnsInSteps } from '../expression/columnFor';
import type { Steps } from '../steps/steps';
import { type Table } from '../table/table';
import type { Answer } from '../tally/answer';
import type { Base } from '../tally/base';
import { Faults, type Fault } from '../tally/fault';
import { computeTally, kindOf } from '../tally/kinds';
import { withoutFaults } from '../tally/prune';
import { refs } from '../tally/refs';
import { resolveLists } from '../tally/resolve';
import { Tally } from '../tally/specs';
import { prepareTable } from './prepare';
import type { Stand } from './stand';

/** What a tally comes to on a stand. */
export interface Computed {
  /** The tally that was computed: without the parts at fault, other lists written out. */
  readonly tally: Tally;
  /** Null where the parts at fault, or the data, leave nothing to compute. */
  readonly answer: Answer | null;
  /** Parts that do not fit, by their paths in the tally. They take no part. */
  readonly faults: readonly Fault[];
  /** Why the data do not allow it; empty where they do. */
  readonly refused: string;
  readonly base: Base;
}

/** A tally that was checked against a stand. */
export interface Fitted {
  readonly tally: Tally;
  readonly faults: readonly Fault[];
  /** Whether what is left can be computed. */
  readonly fits: boolean;
}

/** Names what of a tally does not fit, and leaves it out. @param path where the tally stands */
export function fit(stand: Stand, asked: Tally, path: string): Fitted {
  const faults = new Faults(stand.base.table.columns, stand.base.table.length);
  const { others } = stand.base;
  for (const { path: at, to } of refs(asked, path).lists)
    if (!others.has(to)) faults.add(at, `There is no list “${to}”.`, 'Name it under “lists”.');
  let tally = asked;
  if (faults.found.length === 0)
    try {
      tally = resolveLists(asked, others);
    } catch (error) {
      const known =
        error instanceof BadBandList ||
        error instanceof BadCondition ||
        error instanceof UnknownColumn;
      if (!known) throw error;
      faults.add(path, error.message, 'Name the list under “lists”, and columns that it has.');
    }
  kindOf(tally).check(faults, path);
  if (faults.found.length === 0) return { tally, faults: [], fits: true };
  const left = Tally.safeParse(withoutFaults(tally, faults.found, path));
  if (!left.success) return { tally, faults: faults.found, fits: false };
  const again = new Faults(stand.base.table.columns, stand.base.table.length);
  kindOf(left.data).check(again, path);
  const missing = refs(left.data).lists.some(({ to }) => !others.has(to));
  return {
    tally: left.data,
    faults: faults.found,
    fits: again.found.length === 0 && !missing,
  };
}

/**
 * Computes a tally on a stand. What does not fit is told and left out, and never stops the rest.
 * @example const { answer, faults } = finish(compute(stand, tally, 'tally'));
 */
export function* compute(stand: Stand, asked: Tally, path: string): Steps<Computed> {
  const { tally, faults, fits } = fit(stand, asked, path);
  const base = yield* withComparedLists(stand, tally);
  const none = { tally, faults, base, answer: null };
  if (!fits) return { ...none, refused: '' };
  try {
    // Those that are expressions stand when the tally asks for them in the midst of its work.
    yield* columnsInSteps(
      base.table,
      refs(tally).columns.map(({ to }) => to),
    );
    return { ...none, answer: yield* computeTally(base, tally), refused: '' };
  } catch (error) {
    const refused =
      error instanceof TallyRefused ||
      error instanceof BadBands ||
      error instanceof BadCondition ||
      error instanceof UnknownColumn;
    if (!refused) throw error;
    return { ...none, refused: error.message };
  }
}

/** Older readings for comparisons get the same preparation as the list itself. */
function* withComparedLists({ base, question }: Stand, tally: Tally): Steps<Base> {
  const compared: string[] = [];
  kindOf(tally).visit({ list: (name) => void compared.push(name) }, '');
  if (compared.length === 0) return base;
  const others = new Map<string, Table>(base.others);
  for (const name of compared) {
    const other = base.others.get(name);
    if (other) others.set(name, (yield* prepareTable(other, question, base.others)).table);
  }
  return { ...base, others };
}

import { Trouble, type Code } from '../../errors';
import { columnsInSteps } from '../../expression/columnFor';
import type { Task } from '../../task/task';
import type { Answer } from '../answer/answer';
import type { TallyInput } from '../input/input';
import { Faults, type Fault } from '../spec/fault';
import { computeTally, kindOf } from './kinds';
import { withoutFaults } from '../spec/prune';
import { refs } from '../spec/refs';
import { resolveLists } from '../spec/listsWrittenOut';
import { Tally } from '../spec/specs';
import { withIds } from '../spec/withIds';

/** A tally that was checked against a list. */
export interface Fitted {
  /** Its columns named by their ids, other lists written out, without the parts at fault. */
  readonly tally: Tally;
  /** Parts that do not fit, by their paths in the tally. They take no part. */
  readonly faults: readonly Fault[];
  /** Whether what is left can be computed. */
  readonly fits: boolean;
}

/** What a tally comes to. */
export interface Evaluated {
  /** The tally that was computed. */
  readonly tally: Tally;
  /** Null where the parts at fault, or the data, leave nothing to compute. */
  readonly answer: Answer | null;
  readonly faults: readonly Fault[];
  /** Why the data do not allow it, and what would; empty where they do. */
  readonly refused: string;
  readonly input: TallyInput;
}

/** What the data, other lists or expressions do not allow: a reason to be told, never a failure. */
const REFUSALS: ReadonlySet<Code> = new Set<Code>([
  'tallyRefused',
  'badBands',
  'badBandList',
  'badCondition',
  'badExpression',
  'unknownColumn',
]);

/** Why a tally cannot be computed, where that is what was thrown; null for any other error. */
export const refusalOf = (error: unknown): string | null =>
  error instanceof Trouble && REFUSALS.has(error.code) ? error.message : null;

/**
 * Names what of a tally does not fit, and leaves it out. What fits names its columns by their ids
 * from here on, whatever they were named by.
 * @param path where the tally stands
 */
export function fit({ table, others }: TallyInput, asked: Tally, path: string): Fitted {
  const faults = new Faults(table.columns, table.length);
  for (const { path: at, to } of refs(asked, path).lists)
    if (!others.has(to)) faults.add(at, `There is no list “${to}”.`, 'Name it under “lists”.');
  let tally = asked;
  if (faults.found.length === 0)
    try {
      tally = resolveLists(asked, others);
    } catch (error) {
      const why = refusalOf(error);
      if (why === null) throw error;
      faults.add(path, why, 'Name the list under “lists”, and columns that it has.');
    }
  kindOf(tally).check(faults, path);
  if (faults.found.length === 0)
    return { tally: withIds(tally, table.columns), faults: [], fits: true };
  const left = Tally.safeParse(withoutFaults(tally, faults.found, path));
  if (!left.success) return { tally, faults: faults.found, fits: false };
  const again = new Faults(table.columns, table.length);
  kindOf(left.data).check(again, path);
  const missing = refs(left.data).lists.some(({ to }) => !others.has(to));
  return {
    tally: withIds(left.data, table.columns),
    faults: faults.found,
    fits: again.found.length === 0 && !missing,
  };
}

/**
 * Checks a tally and computes it: the one way to the figures of any tally, of a tray, of an ask or
 * behind a list that is made of it. What does not fit is told and left out, what the data do not allow
 * is told; neither stops anything else.
 * @param ready makes the base ready for what the tally needs besides, once that is known
 * @example const { answer, faults, refused } = finish(evaluate(wholeBase(table), tally, 'tally'));
 */
export function* evaluate(
  on: TallyInput,
  asked: Tally,
  path: string,
  ready: (input: TallyInput, tally: Tally) => Task<TallyInput> = asItIs,
): Task<Evaluated> {
  const { tally, faults, fits } = fit(on, asked, path);
  const none = { tally, faults, input: on, answer: null };
  if (!fits) return { ...none, refused: '' };
  try {
    const input = yield* ready(on, tally);
    // Those that are expressions stand when the tally asks for them in the midst of its work.
    yield* columnsInSteps(
      input.table,
      refs(tally).columns.map(({ to }) => to),
    );
    return { ...none, input, answer: yield* computeTally(input, tally), refused: '' };
  } catch (error) {
    const refused = refusalOf(error);
    if (refused === null) throw error;
    return { ...none, refused };
  }
}

function* asItIs(input: TallyInput): Task<TallyInput> {
  return input;
}

import type { GroupKey } from '../../arrange/groupKey';
import { looksAtOrder } from '../../measure/measure';
import { recordCount } from '../../table/recordCounts';
import type { Task } from '../../task/task';
import { namesOf } from '../../table/table';
import { alikeWarnings } from '../trust/lookAlikeWarnings';
import type { Answer } from '../answer/answer';
import { recordsInSteps, selectionOf, type TallyInput } from '../input/input';
import { bind, type BoundTally, type Registry } from './binding';
import { comparisonKind } from '../kinds/comparison/kind';
import { nestedKind } from '../kinds/nested/kind';
import { reconciliationKind } from '../kinds/reconciliation/kind';
import { SIMPLE_KINDS } from './simpleKinds';
import type { Tally } from '../spec/specs';
import { orderWords } from '../sentence/words';

type Specs = { [K in Tally['kind']]: Extract<Tally, { kind: K }> };

/** Every kind of tally: those of one list, and those that are built on another tally. */
const KINDS: Registry<Specs> = {
  ...SIMPLE_KINDS,
  nested: nestedKind,
  comparison: comparisonKind,
  reconciliation: reconciliationKind,
};

/**
 * A tally with its kind.
 * @example kindOf(tally).plain(namesOf(table), 'Sailings') // its sentence
 */
export const kindOf = (tally: Tally): BoundTally<Tally> =>
  bind<Specs, Tally['kind']>(KINDS, tally.kind, tally);

/** The group keys of the list itself that a tally names. */
function keysOfTally(tally: Tally): GroupKey[] {
  const keys: GroupKey[] = [];
  kindOf(tally).visit(
    {
      key(key) {
        keys.push(key);
        return key;
      },
    },
    '',
  );
  return keys;
}

/** In which order `first` and `last` look, where the sentence itself does not say one. */
function orderNote(input: TallyInput, tally: Tally): string {
  let looks = false;
  kindOf(tally).visit(
    {
      measure(measure) {
        looks ||= looksAtOrder(measure.kind);
        return measure;
      },
    },
    '',
  );
  return looks && tally.kind !== 'ledger'
    ? ` First and last are ${orderWords(input.sort, namesOf(input.table))}.`
    : '';
}

/**
 * Computes a tally. Rows are made when they are asked for.
 * @throws TallyRefused, BadBands, BadCondition, ExpressionError, UnknownColumn
 * @example const { tables } = finish(computeTally(wholeBase(table), tally));
 */
export function* computeTally(input: TallyInput, tally: Tally): Task<Answer> {
  const kind = kindOf(tally);
  const records = yield* recordsInSteps(selectionOf(input, tally.scope));
  const answer = yield* kind.compute(input);
  const alike = yield* alikeWarnings(input.table, keysOfTally(tally));
  yield undefined;
  return {
    kind: tally.kind,
    words: kind.plain(namesOf(input.table), input.listName) + orderNote(input, tally),
    scope: tally.scope,
    records: recordCount(input.table, records),
    ...answer,
    warnings: [...answer.warnings, ...alike],
  };
}

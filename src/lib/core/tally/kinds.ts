import type { GroupKey } from '../arrange/groupKey';
import { looksAtOrder } from '../measure/measure';
import type { Steps } from '../steps/steps';
import { namesOf } from '../table/table';
import { alikeWarnings } from './alike';
import type { Answer } from './answer';
import { recordsInSteps, selectionOf, type Base } from './base';
import { bind, type BoundTally, type Registry } from './bound';
import { comparisonKind } from './comparison/kind';
import { nestedKind } from './nested/kind';
import { SIMPLE_KINDS } from './simple';
import type { Tally } from './specs';
import { orderWords } from './words';

type Specs = { [K in Tally['kind']]: Extract<Tally, { kind: K }> };

/** Every kind of tally: those of one list, and those that are built on another tally. */
const KINDS: Registry<Specs> = {
  ...SIMPLE_KINDS,
  nested: nestedKind,
  comparison: comparisonKind,
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
function orderNote(base: Base, tally: Tally): string {
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
    ? ` First and last are ${orderWords(base.sort, namesOf(base.table))}.`
    : '';
}

/**
 * Computes a tally. Rows are made when they are asked for.
 * @throws TallyRefused, BadBands, BadCondition, ExpressionError, UnknownColumn
 * @example const { tables } = finish(computeTally(wholeBase(table), tally));
 */
export function* computeTally(base: Base, tally: Tally): Steps<Answer> {
  const kind = kindOf(tally);
  const records = yield* recordsInSteps(selectionOf(base, tally.scope));
  const answer = yield* kind.compute(base);
  const alike = yield* alikeWarnings(base.table, keysOfTally(tally));
  yield undefined;
  return {
    kind: tally.kind,
    words: kind.plain(namesOf(base.table), base.listName) + orderNote(base, tally),
    scope: tally.scope,
    records: records.length,
    ...answer,
    warnings: [...answer.warnings, ...alike],
  };
}

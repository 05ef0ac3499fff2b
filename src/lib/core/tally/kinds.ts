import { z } from 'zod';
import type { Steps } from '../steps/steps';
import { namesOf } from '../table/table';
import { recordsOf, selectionOf, type Base } from './base';
import { comparisonKind, ComparisonSpec } from './comparison/kind';
import type { TallyKind } from './kind';
import { nestedKind, NestedSpec } from './nested/kind';
import type { TallyResult } from './result';
import { SimpleTally, simpleKind } from './simple';

/** Every kind of tally: those of one list, and those that are built on another tally. */
export const Tally = z.discriminatedUnion('kind', [
  ...SimpleTally.options,
  NestedSpec,
  ComparisonSpec,
]);
export type Tally = z.infer<typeof Tally>;

/** The kind of a tally; its functions take that very tally. */
export function kindOf(tally: Tally): TallyKind<Tally> {
  switch (tally.kind) {
    case 'nested':
      return nestedKind as unknown as TallyKind<Tally>;
    case 'comparison':
      return comparisonKind as unknown as TallyKind<Tally>;
    default:
      return simpleKind(tally) as unknown as TallyKind<Tally>;
  }
}

/**
 * Reckons a tally.
 * @throws TallyRefused, BadBands, BadCondition, ExpressionError, UnknownColumn
 */
export function* reckonTally(base: Base, tally: Tally): Steps<TallyResult> {
  const kind = kindOf(tally);
  const figures = yield* kind.reckon(base, tally);
  return {
    kind: tally.kind,
    says: kind.describe(tally, namesOf(base.table), base.listName),
    scope: tally.scope,
    records: recordsOf(selectionOf(base, tally.scope)).length,
    ...figures,
  };
}

/** The sentence of a tally. */
export const describe = (tally: Tally, base: Pick<Base, 'table' | 'listName'>): string =>
  kindOf(tally).describe(tally, namesOf(base.table), base.listName);

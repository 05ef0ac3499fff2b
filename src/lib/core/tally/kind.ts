import { z } from 'zod';
import type { Steps } from '../steps/steps';
import type { Base } from './base';
import type { Faults } from './fault';
import { ScopeName, type TallyResult } from './result';

/** What every tally's spec holds besides its own. */
export const tallyCommon = {
  /** Heading in the report; the sentence stands in for it. */
  title: z.string().max(200).optional(),
  /** The records it uses: counted, unless it says otherwise. */
  scope: ScopeName.default('counted'),
} as const;

/** Column names by id. */
export type Names = ReadonlyMap<string, string>;

/** What a kind's arithmetic returns; the registry adds kind, sentence and scope. */
export type TallyFigures = Pick<TallyResult, 'tables' | 'warnings'>;

/**
 * One kind of tally: its spec, its arithmetic and its sentence. A kind is one folder here and one
 * line in the registry (`kinds.ts`).
 */
export interface TallyKind<Spec> {
  readonly kind: string;
  readonly spec: z.ZodType<Spec>;
  /** Names everything in the spec that does not fit the list; `path` is where the spec stands. */
  check(spec: Spec, faults: Faults, path: string): void;
  /** Reckons it. @throws TallyRefused where the data themselves do not allow it */
  reckon(base: Base, spec: Spec): Steps<TallyFigures>;
  describe(spec: Spec, names: Names, listName: string): string;
}

/** The data do not allow what was asked; the message says why and what would. */
export class TallyRefused extends Error {
  override name = 'TallyRefused';
}

/** `a`, `a and b`, `a, b and c`. */
export const listedWords = (items: readonly string[]): string =>
  items.length < 2
    ? items.join('')
    : `${items.slice(0, -1).join(', ')} and ${items[items.length - 1]}`;

export const nameIn = (names: Names, ref: string): string => names.get(ref) ?? ref;

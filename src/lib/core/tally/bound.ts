import type { Steps } from '../steps/steps';
import type { Column } from '../table/column';
import type { Base } from './base';
import type { Faults } from './fault';
import type { Names, Shaped, TallyAnswer, TallyKind } from './kind';
import { plainSentence, type Part } from './sentence';
import type { SpecVisitor } from './visit';

/** A tally together with its kind: what can be done with it, whatever it is. */
export interface BoundTally<Spec> {
  check(faults: Faults, path: string): void;
  visit(visitor: SpecVisitor, path: string): Spec;
  compute(base: Base): Steps<TallyAnswer>;
  sentence(names: Names, listName: string): Part<Spec>[];
  fact(answer: TallyAnswer): string;
  shape(): Shaped | null;
  /** Tables that its chart must have all rows of. */
  drawnWhole(): readonly string[];
  innerColumns(columns: readonly Column[]): readonly Column[] | null;
  /** The sentence without its marks. */
  plain(names: Names, listName: string): string;
}

/** Kinds by name, each of its own spec. */
export type Registry<Specs> = { readonly [K in keyof Specs]: TallyKind<Specs[K]> };

/** A spec with its kind out of a registry; the compiler sees that they belong together. */
export function bind<Specs, K extends keyof Specs>(
  kinds: Registry<Specs>,
  kind: K,
  spec: Specs[K],
): BoundTally<Specs[K]> {
  const its: TallyKind<Specs[K]> = kinds[kind];
  return {
    check: (faults, path) => its.check(spec, faults, path),
    visit: (visitor, path) => its.visit(spec, visitor, path),
    compute: (base) => its.compute(base, spec),
    sentence: (names, listName) => its.sentence(spec, names, listName),
    fact: (answer) => its.fact(answer, spec),
    drawnWhole: () => its.drawnWhole?.(spec) ?? [],
    shape: () => its.shape?.(spec) ?? null,
    innerColumns: (columns) => its.innerColumns?.(columns, spec) ?? null,
    plain: (names, listName) => plainSentence(its.sentence(spec, names, listName)),
  };
}

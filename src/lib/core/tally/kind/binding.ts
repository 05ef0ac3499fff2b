import type { Task } from '../../task/task';
import type { Column } from '../../table/column';
import type { TallyInput } from '../input/input';
import type { Faults } from '../spec/fault';
import type { Names, Shaped, TallyAnswer, TallyKind } from './kind';
import { plainSentence, type Part } from '../sentence/sentence';
import type { SpecVisitor } from '../spec/visit';

/** A tally together with own kind: what can be done with it, whatever it is. */
export interface BoundTally<Spec> {
  check(faults: Faults, path: string): void;
  visit(visitor: SpecVisitor, path: string): Spec;
  compute(input: TallyInput): Task<TallyAnswer>;
  sentence(names: Names, listName: string): Part<Spec>[];
  fact(answer: TallyAnswer): string;
  shape(): Shaped | null;
  /** Tables that own chart must have all rows of. */
  drawnWhole(): readonly string[];
  readonly columnsForeseen: boolean;
  readonly ofReadings: boolean;
  readonly ofOtherLists: boolean;
  /** Whether it can be computed from partial aggregates. */
  readonly inParts: boolean;
  innerColumns(columns: readonly Column[]): readonly Column[] | null;
  /** The sentence without own marks. */
  plain(names: Names, listName: string): string;
}

/** Kinds by name, each of own own spec. */
export type Registry<Specs> = { readonly [K in keyof Specs]: TallyKind<Specs[K]> };

/** A spec with own kind out of a registry; the compiler sees that they belong together. */
export function bind<Specs, K extends keyof Specs>(
  kinds: Registry<Specs>,
  kind: K,
  spec: Specs[K],
): BoundTally<Specs[K]> {
  const own: TallyKind<Specs[K]> = kinds[kind];
  return {
    check: (faults, path) => own.check(spec, faults, path),
    visit: (visitor, path) => own.visit(spec, visitor, path),
    compute: (input) => own.compute(input, spec),
    sentence: (names, listName) => own.sentence(spec, names, listName),
    fact: (answer) => own.fact(answer, spec),
    drawnWhole: () => own.drawnWhole?.(spec) ?? [],
    shape: () => own.shape?.(spec) ?? null,
    columnsForeseen: own.columnsForeseen ?? false,
    ofReadings: own.ofReadings ?? false,
    ofOtherLists: own.ofOtherLists ?? false,
    inParts: own.inParts?.(spec) ?? false,
    innerColumns: (columns) => own.innerColumns?.(columns, spec) ?? null,
    plain: (names, listName) => plainSentence(own.sentence(spec, names, listName)),
  };
}

import type { GroupKey } from '../../arrange/groupKey';
import type { Task } from '../../task/task';
import type { Column } from '../../table/column';
import type { TallyAnswer } from '../answer/answer';
import type { TallyInput } from '../input/input';
import type { Faults } from '../spec/fault';
import type { Part } from '../sentence/sentence';
import type { SpecVisitor } from '../spec/visit';

export type { TallyAnswer } from '../answer/answer';

/** Column names by id. */
export type Names = ReadonlyMap<string, string>;

/**
 * One kind of tally: its check, the way through its spec, its arithmetic and its sentence. A kind is
 * one folder in `tally/kinds` and one line in each registry (docs/adding-a-kind.md).
 */
export interface TallyKind<Spec> {
  /** Names everything in the spec that does not fit the list; `path` is where the spec stands. */
  check(spec: Spec, faults: Faults, path: string): void;
  /** Shows every key, measure, condition, column and list of the spec to a visitor. */
  visit(spec: Spec, visitor: SpecVisitor, path: string): Spec;
  /** Computes it. @throws TallyRefused where the data themselves do not allow it */
  compute(input: TallyInput, spec: Spec): Task<TallyAnswer>;
  /** What it computes, in words; the marked ones are places of the spec. */
  sentence(spec: Spec, names: Names, listName: string): Part<Spec>[];
  /** What it came to, in a few letters: `6 bands`, `+13.2 %`. Empty where nothing is worth saying. */
  fact(answer: TallyAnswer, spec: Spec): string;
  /** What its chart shows of a column besides the figures; nothing unless given. */
  shape?(spec: Spec): Shaped | null;
  /**
   * Tables that a chart must have all rows of, in their own order: a series, or those of which the
   * largest are drawn. Charts of other tables draw the first rows and say so.
   */
  drawnWhole?(spec: Spec): readonly string[];
  /** The columns of its result are the same whatever the records hold: they are known before it is computed. */
  readonly columnsForeseen?: true;
  /** It sets readings of the list against each other: what moved between readings is not asked of it. */
  readonly ofReadings?: true;
  /** The lists it names are lists of their own, no readings of this one: they are taken as they were read. */
  readonly ofOtherLists?: true;
  /**
   * Whether it can be computed from a list whose records were put together where they are alike in the
   * columns it names (`core/parts`): it looks at no single record. It cannot unless given.
   */
  inParts?(spec: Spec): boolean;
  /** Columns of the result that its second half is asked of; null where they are not known yet. */
  innerColumns?(columns: readonly Column[], spec: Spec): readonly Column[] | null;
}

/**
 * What a chart draws of a column besides the figures: how its values fall in bins, all of them in
 * order by the groups of a key, or as points along another; or one column of the table by groups
 * (`groups`) as a line for each.
 */
export interface Shaped {
  readonly of: string;
  readonly as: 'bins' | 'order' | 'points' | 'series';
  readonly key?: GroupKey | undefined;
  /** Points: the column along, and the keys whose groups have lines of their own. */
  readonly along?: string;
  readonly keys?: readonly GroupKey[];
  /** Points: the line through them, whether from 0, and how wide its bounds are in per cent. */
  readonly fit?: { readonly origin: boolean; readonly percent: number };
  /** Values that the drawing must reach: the edges of bands. */
  readonly reach: readonly number[];
}

export const nameIn = (names: Names, ref: string): string => names.get(ref) ?? ref;

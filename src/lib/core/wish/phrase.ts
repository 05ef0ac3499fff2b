import type { KeptBands } from '../arrange/bands';
import type { MeasureKind } from '../measure/measure';
import type { Condition } from '../selection/condition';
import type { Period } from '../table/period';
import type { Tally } from '../tally/spec/specs';
import type { ListWords } from './listWords';
import type { Token } from './tokens';
import type { End } from './words/orderWords';

/** What some words of a wish say. */
export type Part =
  | { readonly is: 'column'; readonly column: string }
  | { readonly is: 'measure'; readonly kind: MeasureKind; readonly percent?: number }
  | { readonly is: 'period'; readonly period: Period }
  /** What the columns behind it are named for. */
  | {
      readonly is: 'role';
      readonly role: Role;
      /** “per” divides where a number follows it. */
      readonly per?: boolean;
    }
  /** Which records count. */
  | { readonly is: 'narrow'; readonly condition: Condition }
  /** Figures are asked under it, beside others. */
  | { readonly is: 'where'; readonly condition: Condition }
  | { readonly is: 'both' | 'neither' }
  /** The first, or the last, so many. */
  | { readonly is: 'count'; readonly of: End; readonly count: number }
  | { readonly is: 'order'; readonly of: End }
  | { readonly is: 'ahead'; readonly count: number }
  | { readonly is: 'ends'; readonly from: string; readonly to: string }
  | { readonly is: 'percent' | 'stands'; readonly value: number }
  | { readonly is: 'edges'; readonly edges: readonly number[] }
  | { readonly is: 'table'; readonly table: KeptBands }
  | { readonly is: 'bands' }
  | { readonly is: 'width'; readonly width: number }
  /** Set against the period before, or the same a year before. */
  | { readonly is: 'against'; readonly what: 'previous' | 'yearBefore' }
  /** Several periods, one beside the other. */
  | { readonly is: 'beside'; readonly period: Period; readonly condition: Condition }
  | { readonly is: 'across' | 'toDate' | 'deviation' | 'often' | 'best' | 'which' | 'side' }
  | { readonly is: 'yearStart'; readonly month: number }
  /** What stands between two columns: one is divided by the other, or is less by it. */
  | { readonly is: 'between'; readonly op: 'ratio' | 'difference' }
  /** What the list's records are called. */
  | { readonly is: 'records' }
  /** Words that name kinds of question. */
  | { readonly is: 'asks'; readonly kinds: readonly Tally['kind'][] }
  /** A small word: nothing changes without it. */
  | { readonly is: 'small' };

/** A part of one sort. */
export type PartOf<K extends Part['is']> = Extract<Part, { is: K }>;

/** The parts of a wish that are of one sort, in their order. */
export const partsOf = <K extends Part['is']>(parts: readonly Part[], is: K): PartOf<K>[] =>
  parts.filter((part): part is PartOf<K> => part.is === is);

/** What columns are named for: what is figured, what it is by, what it is within or of each of. */
export type Role = 'what' | 'by' | 'within' | 'each';

/** Some words that stand together, what they say, and what else they could. */
export interface Phrase {
  readonly from: number;
  /** The first token behind it. */
  readonly to: number;
  readonly part: Part;
  /** How well it fits where it stands: of two that take the same words, the better one is read. */
  readonly fit: number;
  /** What the same words say as well: each is a reading of its own. */
  readonly others?: readonly Part[];
}

/** What was typed, and what it was typed of. */
export interface Typed {
  readonly tokens: readonly Token[];
  readonly words: ListWords;
  /** What the list is called: its records are called so. */
  readonly listName: string;
  /** Band tables by the names they are kept under. */
  readonly kept: readonly KeptBands[];
}

/** The phrases that begin at a token. */
export type Phrases = (typed: Typed, at: number) => Phrase[];

/** Whether these words stand from a place on. */
export const says = (tokens: readonly Token[], at: number, words: readonly string[]): boolean =>
  words.every((word, k) => tokens[at + k]?.word === word && !tokens[at + k].quoted);

import type { Column } from '../table/column';
import type { CompareOp, ExtractField, IntervalUnit } from './ast';
import type { Span } from './span';
import type { ScalarFunction, TextFunction } from './functions';
import type { ValueType } from './valueType';

interface Common {
  readonly type: ValueType;
  readonly span: Span;
}

/** An expression with its types settled: what is compiled. Operands have the types their node needs. */
export type Typed = Common &
  (
    | { readonly op: 'constant'; readonly value: number | string | null }
    | { readonly op: 'column'; readonly column: Column }
    | {
        readonly op: 'arithmetic';
        readonly sign: '+' | '-' | '*' | '/';
        readonly left: Typed;
        readonly right: Typed;
      }
    | { readonly op: 'join'; readonly left: Typed; readonly right: Typed }
    /** A date or time moved on: by whole months, then by so many of its own units. */
    | { readonly op: 'shift'; readonly of: Typed; readonly months: number; readonly units: number }
    | {
        readonly op: 'difference';
        readonly left: Typed;
        readonly right: Typed;
        readonly unit: IntervalUnit;
      }
    | {
        readonly op: 'compare';
        readonly sign: CompareOp;
        readonly left: Typed;
        readonly right: Typed;
      }
    | { readonly op: 'and' | 'or'; readonly left: Typed; readonly right: Typed }
    | { readonly op: 'not'; readonly of: Typed }
    | { readonly op: 'isNull'; readonly of: Typed }
    | { readonly op: 'isTruth'; readonly of: Typed; readonly truth: number }
    | { readonly op: 'in'; readonly of: Typed; readonly list: readonly Typed[] }
    | {
        readonly op: 'like';
        readonly of: Typed;
        readonly pattern: Typed;
        readonly escape: Typed | null;
      }
    | {
        readonly op: 'case';
        readonly whens: readonly { when: Typed; then: Typed }[];
        readonly otherwise: Typed;
      }
    | { readonly op: 'coalesce'; readonly args: readonly Typed[] }
    | {
        readonly op: 'extreme';
        readonly side: 'greatest' | 'least';
        readonly args: readonly Typed[];
      }
    /** Scalars to a scalar, one value at a time; none where an argument is none or the result is not a number. */
    | { readonly op: 'scalar'; readonly fn: ScalarFunction; readonly args: readonly Typed[] }
    /** With text among the arguments or as the result. */
    | { readonly op: 'textual'; readonly fn: TextFunction; readonly args: readonly Typed[] }
    | { readonly op: 'extract'; readonly field: ExtractField; readonly of: Typed }
  );

/** Operands of a node, in order. */
export function operands(t: Typed): readonly Typed[] {
  switch (t.op) {
    case 'constant':
    case 'column':
      return [];
    case 'arithmetic':
    case 'join':
    case 'difference':
    case 'compare':
    case 'and':
    case 'or':
      return [t.left, t.right];
    case 'shift':
    case 'not':
    case 'isNull':
    case 'isTruth':
    case 'extract':
      return [t.of];
    case 'in':
      return [t.of, ...t.list];
    case 'like':
      return t.escape ? [t.of, t.pattern, t.escape] : [t.of, t.pattern];
    case 'case':
      return [...t.whens.flatMap(({ when, then }) => [when, then]), t.otherwise];
    case 'coalesce':
    case 'extreme':
    case 'scalar':
    case 'textual':
      return t.args;
  }
}

/** The columns an expression reads, each once. */
export function columnsRead(t: Typed, into = new Set<Column>()): Set<Column> {
  if (t.op === 'column') into.add(t.column);
  for (const operand of operands(t)) columnsRead(operand, into);
  return into;
}

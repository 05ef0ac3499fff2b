import type { Span } from './span';

/**
 * What an expression says, before its columns and types are known. The grammar is that of scalar
 * expressions in ISO/IEC 9075-2 (6.28 value expression and below), as far as it goes.
 */
export type Ast =
  | { node: 'number'; value: number; span: Span }
  | { node: 'text'; value: string; span: Span }
  | { node: 'truth'; value: boolean | null; span: Span }
  | { node: 'null'; span: Span }
  | { node: 'moment'; type: 'date' | 'datetime' | 'time'; text: string; span: Span }
  | { node: 'interval'; count: number; unit: IntervalUnit; span: Span }
  | { node: 'column'; name: string; quoted: boolean; span: Span }
  | { node: 'negate'; of: Ast; span: Span }
  | { node: 'binary'; op: BinaryOp; left: Ast; right: Ast; span: Span }
  /** (left − right) UNIT: a difference in that unit. */
  | { node: 'difference'; left: Ast; right: Ast; unit: IntervalUnit; span: Span }
  | { node: 'compare'; op: CompareOp; left: Ast; right: Ast; span: Span }
  | { node: 'not'; of: Ast; span: Span }
  | { node: 'and' | 'or'; left: Ast; right: Ast; span: Span }
  | { node: 'is'; of: Ast; what: 'null' | 'true' | 'false' | 'unknown'; not: boolean; span: Span }
  | { node: 'between'; of: Ast; low: Ast; high: Ast; not: boolean; span: Span }
  | { node: 'in'; of: Ast; list: Ast[]; not: boolean; span: Span }
  | { node: 'like'; of: Ast; pattern: Ast; escape: Ast | null; not: boolean; span: Span }
  | { node: 'case'; whens: { when: Ast; then: Ast }[]; otherwise: Ast | null; span: Span }
  | { node: 'cast'; of: Ast; to: CastTarget; span: Span }
  | { node: 'extract'; field: ExtractField; of: Ast; span: Span }
  | { node: 'call'; name: string; args: Ast[]; span: Span };

export type BinaryOp = '+' | '-' | '*' | '/' | '||';
export type CompareOp = '=' | '<>' | '<' | '<=' | '>' | '>=';

export const INTERVAL_UNITS = ['YEAR', 'MONTH', 'DAY', 'HOUR', 'MINUTE', 'SECOND'] as const;
export type IntervalUnit = (typeof INTERVAL_UNITS)[number];
export type ExtractField = IntervalUnit;

/** `scale`: digits kept behind the mark. `length`: characters kept. */
export type CastTarget =
  | { type: 'integer' }
  | { type: 'number'; scale: number | null }
  | { type: 'text'; length: number | null }
  | { type: 'date' }
  | { type: 'datetime' }
  | { type: 'time' }
  | { type: 'yesno' };

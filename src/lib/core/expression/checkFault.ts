import { ExpressionError } from '../errors';
import type { Span } from './span';

/** Refuses an expression at a place. @throws ExpressionError */
export const fail = (
  fault: string,
  span: Span,
  remedy: string,
  fix: string | null = null,
): never => {
  throw new ExpressionError(fault, span, remedy, fix);
};

/** Words at the beginning of a sentence. */
export const capital = (words: string): string => words[0].toUpperCase() + words.slice(1);

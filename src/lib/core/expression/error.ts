/** A place in an expression: characters start..end-1. */
export interface Span {
  readonly start: number;
  readonly end: number;
}

/** A mistake in an expression, at its place, with what to do about it. */
export class ExpressionError extends Error {
  override name = 'ExpressionError';

  /**
   * @param fault what is wrong: `Text cannot be added.`
   * @param remedy what to do about it: `Use || to join texts.`
   */
  constructor(
    readonly fault: string,
    readonly span: Span,
    readonly remedy: string,
  ) {
    super(`Character ${span.start + 1}: ${fault} ${remedy}`.trim());
  }
}

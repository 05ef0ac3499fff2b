/** A place in an expression: characters start..end-1. */
export interface Span {
  readonly start: number;
  readonly end: number;
}

/** How a reference says that it is an expression and not the name of a column. */
const MARK = /^expression:\s*/;

/** The expression in a reference such as `expression: fares / boarded`; null for a plain one. */
export function expressionIn(ref: string): string | null {
  return MARK.test(ref) ? ref.replace(MARK, '') : null;
}

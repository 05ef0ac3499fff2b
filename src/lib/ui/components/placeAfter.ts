/** A line of a table and a column on it. */
export interface Place {
  readonly line: number;
  readonly column: number;
}

/** The table that a cursor moves in. */
export interface Bounds {
  readonly lines: number;
  readonly columns: number;
  /** The first column: −1 where one stands before the figures. */
  readonly first: number;
  /** Lines of a page. */
  readonly page: number;
}

/**
 * The place that a key leads to: the next one, a page further, or the first and the last line.
 * Null for other keys. It never leaves the table.
 */
export function placeAfter(
  key: string,
  { line, column }: Place,
  { lines, columns, first, page }: Bounds,
): Place | null {
  const to: Record<string, readonly [number, number]> = {
    ArrowDown: [line + 1, column],
    ArrowUp: [line - 1, column],
    ArrowRight: [line, column + 1],
    ArrowLeft: [line, column - 1],
    PageDown: [line + page, column],
    PageUp: [line - page, column],
    Home: [0, column],
    End: [lines - 1, column],
  };
  if (!Object.hasOwn(to, key)) return null;
  return {
    line: Math.max(0, Math.min(lines - 1, to[key][0])),
    column: Math.max(first, Math.min(columns - 1, to[key][1])),
  };
}

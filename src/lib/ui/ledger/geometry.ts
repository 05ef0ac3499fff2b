import { stateAt } from '../../engine/cellStates';
import type { Head, Line } from '../../engine/protocol';

/** Height of one line of the ledger, in CSS pixels. */
export const LINE = 26;

/** What a cell keeps free at its two sides, in CSS pixels. */
const PADDING = 20;

/** Browsers lay out no element much taller than this; longer ledgers are scrolled by proportion. */
const TALLEST = 8_000_000;

export interface Window {
  /** First line in view. */
  readonly first: number;
  /** Where that line stands in the scrolled area, in pixels. */
  readonly top: number;
}

export const scrollHeight = (lines: number): number => Math.min(lines * LINE, TALLEST);

/** Which line stands at the top for a scroll position. */
export function windowAt(lines: number, scrollTop: number, viewHeight: number): Window {
  const height = lines * LINE;
  if (height <= TALLEST) {
    const first = Math.max(0, Math.floor(scrollTop / LINE));
    return { first, top: first * LINE };
  }
  const share = scrollTop / (TALLEST - viewHeight);
  const offset = Math.min(1, Math.max(0, share)) * (height - viewHeight);
  const first = Math.floor(offset / LINE);
  return { first, top: scrollTop - (offset - first * LINE) };
}

/** The scroll position that puts a line at a distance from the top. */
export function scrollFor(
  lines: number,
  line: number,
  viewHeight: number,
  distance: number,
): number {
  const height = lines * LINE;
  const offset = Math.max(0, line * LINE - distance);
  if (height <= TALLEST) return offset;
  return (offset / (height - viewHeight)) * (TALLEST - viewHeight);
}

/**
 * The nearest scroll position that shows a whole column between the fixed ones and the right edge;
 * a column wider than that shows from its left.
 */
export function sidewaysFor(
  scrollLeft: number,
  viewWidth: number,
  fixedWidth: number,
  column: { readonly left: number; readonly width: number },
): number {
  const atLeft = column.left - fixedWidth;
  const atRight = column.left + column.width - viewWidth;
  return Math.min(atLeft, Math.max(atRight, scrollLeft));
}

/**
 * Which columns hold a text that may be wider than its cell: a figure needs at most 10 pixels a
 * character at the ledger's size, other text 15, unread cells being text in a column of figures.
 * @param before what held so far for the same heads; a column once clipped stays so
 */
export function clippedColumns(
  heads: readonly Pick<Head, 'width' | 'right'>[],
  lines: readonly Pick<Line, 'cells' | 'states'>[],
  before: readonly boolean[],
): boolean[] {
  return heads.map(({ width, right }, c) => {
    if (before[c]) return true;
    const room = width - PADDING;
    return lines.some(({ cells, states }) => {
      const figure = right && stateAt(states, c) !== 'unread';
      return (cells[c] ?? '').length * (figure ? 10 : 15) > room;
    });
  });
}

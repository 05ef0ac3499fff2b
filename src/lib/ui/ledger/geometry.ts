/** Height of one line of the ledger, in CSS pixels. */
export const LINE = 26;

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

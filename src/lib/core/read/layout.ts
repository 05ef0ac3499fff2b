import { DELIMITERS, type Delimiter, type Encoding, type Layout } from './recipe';
import { isEmptyRow, Splitter } from './split';

/** Rows of the first lines under one guess; an unclosed quote near the end is no matter here. */
export function headRows(
  text: string,
  layout: Pick<Layout, 'delimiter' | 'quote' | 'skipLines'>,
  complete: boolean,
): string[][] {
  const splitter = new Splitter(layout);
  try {
    return splitter.push(text, complete);
  } catch {
    return text
      .split('\n')
      .slice(layout.skipLines)
      .map((line) => line.split(layout.delimiter));
  }
}

/** How well a delimiter explains the rows: how many agree on one width above 1. */
function agreement(rows: readonly string[][]): { share: number; width: number } {
  const widths = new Map<number, number>();
  let counted = 0;
  for (const row of rows) {
    if (isEmptyRow(row)) continue;
    counted++;
    widths.set(row.length, (widths.get(row.length) ?? 0) + 1);
  }
  let best = { share: 0, width: 1 };
  for (const [width, n] of widths) {
    const share = n / Math.max(1, counted);
    if (width > 1 && share > best.share) best = { share, width };
  }
  return best;
}

/** The delimiter under which most rows have the same width; a comma when none divides anything. */
export function detectDelimiter(
  text: string,
  quote: Layout['quote'],
  complete: boolean,
): Delimiter {
  let best: { delimiter: Delimiter; score: number } = { delimiter: ',', score: 0 };
  for (const delimiter of DELIMITERS) {
    const { share, width } = agreement(
      headRows(text, { delimiter, quote, skipLines: 0 }, complete).slice(0, 400),
    );
    const score = share * share * Math.log2(width + 1);
    if (score > best.score + 1e-9) best = { delimiter, score };
  }
  return best.delimiter;
}

const looksLikeValue = (cell: string): boolean => /^[\s+\-(£$€]*\d[\d.,:/%'\s\-T)]*$/.test(cell);

/** Lines before the first one as wide as most: titles and notes above the table. */
function leadingLines(rows: readonly string[][], width: number): number {
  if (width < 2) return 0;
  const at = rows.findIndex((row) => row.length === width);
  return at > 0 && at < 50 ? at : 0;
}

/** A header is a first row with no figures and no blanks, over rows that do hold figures or repeat less. */
function detectHeader(rows: readonly string[][]): boolean {
  const [first, ...rest] = rows;
  if (!first) return true;
  if (first.some(looksLikeValue)) return false;
  const below = rest.slice(0, 200);
  if (below.length === 0) return true;
  if (below.some((row) => row.some(looksLikeValue))) return true;
  // All text: a heading does not stand again among the values below it.
  return first.every((cell, c) => cell !== '' && !below.some((row) => row[c] === cell));
}

/**
 * Delimiter, quote, lines to skip and header from the first part of a file.
 * @param complete the text is the whole file
 */
export function detectLayout(text: string, encoding: Encoding, complete: boolean): Layout {
  const quote: Layout['quote'] =
    text.includes('"') || !/(^|[,;\t|])'[^'\n]*'(?=[,;\t|\n])/.test(text) ? '"' : "'";
  const delimiter = detectDelimiter(text, quote, complete);
  const rows = headRows(text, { delimiter, quote, skipLines: 0 }, complete);
  const skipLines = leadingLines(rows, agreement(rows.slice(0, 400)).width);
  const header = detectHeader(rows.slice(skipLines).filter((row) => !isEmptyRow(row)));
  return { format: 'delimited', delimiter, quote, encoding, header, skipLines };
}

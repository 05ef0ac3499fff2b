import { BLANK_WORDS, DELIMITERS, type Delimiter, type Encoding, type Layout } from './recipe';
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

/** A row without the empty cells at its end: a delimiter behind the last cell makes one. */
export function trimmedRow(row: readonly string[]): readonly string[] {
  let end = row.length;
  while (end > 0 && row[end - 1].trim() === '') end--;
  return end === row.length ? row : row.slice(0, end);
}

/**
 * Cells that a line of a table fills at least: titles above it and notes below fill one or two of a
 * wide one. A line that only lacks a cell, or has one more, is a header or a record.
 */
export const leastFilled = (width: number): number =>
  Math.min(width, Math.max(2, Math.ceil(width / 2) + Number(width > 3)));

/**
 * Whether a line may be a note below a table so wide: it has a cell or two and ends there, or, filled up
 * with delimiters, it is one cell of three words or more. A record may end in blanks.
 */
export function mayBeNote(row: readonly string[], width: number): boolean {
  if (row.length < leastFilled(width)) return true;
  return (
    width > 3 && !row[width - 1] && trimmedRow(row).length === 1 && /\S\s+\S+\s+\S/.test(row[0])
  );
}

/** Lines above the table. */
function leadingLines(rows: readonly string[][], width: number): number {
  if (width < 2) return 0;
  const least = leastFilled(width);
  const at = rows.findIndex((row) => trimmedRow(row).length >= least);
  if (at <= 0 || at >= 50) return 0;
  return isLostHeader(rows[at - 1], rows[at]) ? at - 1 : at;
}

/**
 * Whether a line that fills too few cells for a line of the table is its header all the same: words over most
 * of the columns, right above a first line with figures. Columns without a name are cut off from it.
 */
function isLostHeader(above: readonly string[], first: readonly string[]): boolean {
  const heads = trimmedRow(above);
  return (
    heads.length > 1 &&
    2 * heads.length >= first.length &&
    heads.every((cell) => cell.trim() !== '' && !looksLikeValue(cell)) &&
    first.some(looksLikeValue)
  );
}

/** Numbers that follow one another from column to column: years, months or days as heads. */
function isRunOfNumbers(cells: readonly string[]): boolean {
  const numbers = cells.filter((cell) => /^\d{1,4}$/.test(cell.trim())).map(Number);
  return numbers.length >= 2 && numbers.every((n, k) => k === 0 || n - numbers[k - 1] === 1);
}

/**
 * A header is a first row with no figures and no blanks among its cells, over rows that do hold
 * figures or repeat less; or one whose figures run on from column to column, as those below do not.
 */
function detectHeader(rows: readonly (readonly string[])[]): boolean {
  const [first, ...rest] = rows;
  if (!first) return true;
  const heads = trimmedRow(first);
  // The header itself may stand again below, as at the top of each printed page.
  const below = rest.slice(0, 200).filter((row) => !isSameRow(row, first));
  if (heads.some(looksLikeValue))
    return (
      heads.every((cell) => !looksLikeValue(cell) || /^\d{1,4}$/.test(cell.trim())) &&
      isRunOfNumbers(heads) &&
      2 * below.filter((row) => isRunOfNumbers(trimmedRow(row))).length <= below.length
    );
  if (below.length === 0) return true;
  if (below.some((row) => row.some(looksLikeValue))) return true;
  // All text: a heading does not stand again among the values below it.
  return heads.every((cell, c) => cell !== '' && !below.some((row) => row[c] === cell));
}

/** A unit: no figures, at most two short words, none written as a name is. `km/h`, `(kg)`, `%`, `EUR`. */
const looksLikeUnit = (cell: string): boolean =>
  !/^\p{Lu}\p{Ll}{2,}/u.test(cell) &&
  /^[([]?[^\s\d()[\]]{1,10}( [^\s\d()[\]]{1,6})?[)\]]?$/u.test(cell) &&
  !BLANK_WORDS.some((word) => word === cell);

/** Whether a line below the heads can hold units at all: one with figures is a record, whatever was said of files before. */
export const mayBeUnits = (row: readonly string[]): boolean => !row.some(looksLikeValue);

/** Without the brackets that a unit may stand in. */
export const unitIn = (cell: string): string => cell.trim().replace(/^[([]|[)\]]$/g, '');

/**
 * Whether the line below the heads holds units: each cell that is not blank is one and stands above a column of
 * figures, columns of words have none.
 * @param rows the lines below the heads
 */
export function areUnits([units, ...rows]: readonly (readonly string[])[]): boolean {
  if (!units || rows.length === 0) return false;
  const filled = units.flatMap((cell, c) => (cell.trim() === '' ? [] : [c]));
  return (
    filled.length > 0 &&
    filled.every((c) => {
      const below = rows.slice(0, 200).flatMap((row) => row[c]?.trim() || []);
      const figures = below.filter(looksLikeValue).length;
      return looksLikeUnit(units[c].trim()) && figures > 0 && figures >= 0.85 * below.length;
    })
  );
}

/** Whether two rows hold the same cells, empty ones at their ends apart. */
export function isSameRow(a: readonly string[], b: readonly string[]): boolean {
  const [one, other] = [trimmedRow(a), trimmedRow(b)];
  return one.length === other.length && one.every((cell, c) => cell === other[c]);
}

/**
 * Delimiter, quote, lines to skip and header from the first part of a file.
 * @param complete the text is the whole file
 * @param known what of it needs no guess
 */
export function detectLayout(
  text: string,
  encoding: Encoding,
  complete: boolean,
  known: Partial<Pick<Layout, 'delimiter' | 'quote'>> = {},
): Layout {
  const quote: Layout['quote'] =
    known.quote ??
    (text.includes('"') || !/(^|[,;\t|])'[^'\n]*'(?=[,;\t|\n])/.test(text) ? '"' : "'");
  const delimiter = known.delimiter ?? detectDelimiter(text, quote, complete);
  const rows = headRows(text, { delimiter, quote, skipLines: 0 }, complete);
  const skipLines = leadingLines(rows, agreement(rows.slice(0, 400)).width);
  const table = rows.slice(skipLines).filter((row) => !isEmptyRow(row));
  const header = detectHeader(table);
  const unitsBelow = header && areUnits(table.slice(1));
  return {
    format: 'delimited',
    delimiter,
    quote,
    encoding,
    header,
    ...(unitsBelow && { unitsBelow }),
    skipLines,
  };
}

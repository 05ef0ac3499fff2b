/** Lines that are looked at, and how few are too few to see columns in. */
const LOOKED_AT = 400;
const LEAST_LINES = 4;
/** Blanks side by side that part two columns: words within a cell stand one apart. */
const GUTTER = 2;

/** Marks that part cells in delimited text; commas do not where they only part thousands. */
const DELIMITED = /[\t;|]|,(?!\d{3}(\D|$))|(^|\D),/;

/**
 * Where the columns of fixed-width text begin: places before which every line is blank, two places at
 * least. Empty where the text has no such columns, or marks that part its cells.
 * @example cutsOf(['Route   Fares', 'Holm    10.25', 'Ness     3.00', 'Outer    7.00']) // [0, 8]
 */
export function cutsOf(lines: readonly string[]): number[] {
  const looked = lines.filter((line) => line.trim() !== '').slice(0, LOOKED_AT);
  if (looked.length < LEAST_LINES || looked.some((line) => DELIMITED.test(line))) return [];
  const width = Math.max(...looked.map((line) => line.length));
  const filled = new Int32Array(width + 1);
  for (const line of looked)
    for (let at = 0; at < line.length; at++) if (line[at] !== ' ') filled[at]++;
  const cuts: number[] = [];
  let blank = GUTTER;
  for (let at = 0; at < width; at++) {
    if (filled[at] === 0) {
      blank++;
      continue;
    }
    if (blank >= GUTTER || cuts.length === 0) cuts.push(at);
    blank = 0;
  }
  return cuts.length > 1 ? cuts : [];
}

/** Lines cut into cells at their places, blanks around each taken off. */
export const cutLines = (lines: readonly string[], cuts: readonly number[]): string[][] =>
  lines
    .filter((line) => line.trim() !== '')
    .map((line) => cuts.map((from, c) => line.slice(from, cuts[c + 1]).trim()));

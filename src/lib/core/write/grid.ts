import { inStretches, STRIDE, type Task } from '../task/task';
import { DELIMITER_SIGN, withDecimal, type Dialect } from './dialect';

/** A table of texts on its way out: what is copied, or written to a file. A row is made when it is written. */
export interface Grid {
  readonly heads: readonly string[];
  /** How many rows. */
  readonly length: number;
  row(n: number): readonly Cell[];
}

/** A grid of rows that are there already. */
export const gridOf = (heads: readonly string[], rows: readonly (readonly Cell[])[]): Grid => ({
  heads,
  length: rows.length,
  row: (n) => rows[n],
});

export interface Cell {
  readonly text: string;
  /** Text from the records, as against a number or a date written by us. */
  readonly free: boolean;
  readonly strong?: boolean;
  readonly indent?: number;
  /** Stands on the right. */
  readonly right?: boolean;
  /** A number written by us: it takes the decimal mark asked for, and a minus that programs read. */
  readonly number?: boolean;
  /** Names its row. */
  readonly head?: boolean;
}

/** Characters that make a spreadsheet take a cell for a formula. */
const STARTS_FORMULA = /^[=+\-@\t\r]/;

/** Counts what was made harmless, so that the page can say so. */
export interface Guarded {
  count: number;
}

/** A text that would start a formula in the program that opens it gets an apostrophe before it. */
export function harmless(text: string, guarded: Guarded): string {
  if (!STARTS_FORMULA.test(text)) return text;
  guarded.count++;
  return `'${text}`;
}

/** The minus of print would make the next program take a number for text. */
const plainMinus = (text: string): string => text.replaceAll('−', '-');

const field = (text: string, delimiter: string): string =>
  text.includes(delimiter) || /["\r\n]/.test(text) || text !== text.trim()
    ? `"${text.replaceAll('"', '""')}"`
    : text;

/** How a grid becomes lines: in which encoding is settled when they become bytes. */
export type LineDialect = Pick<Dialect, 'delimiter' | 'decimal'>;

/** One line of delimited text (RFC 4180 quoting), without its line end. */
export function delimitedLine(
  cells: readonly Cell[],
  { delimiter, decimal }: LineDialect,
  guarded: Guarded,
): string {
  const sign = DELIMITER_SIGN[delimiter];
  return cells
    .map(({ text, free, number }) =>
      field(
        free ? harmless(text, guarded) : number ? withDecimal(plainMinus(text), decimal) : text,
        sign,
      ),
    )
    .join(sign);
}

/** A grid as text. */
export interface Written {
  readonly text: string;
  /** How many texts were made harmless. */
  readonly guarded: number;
}

/** Cells written between two pauses, at the most. */
const CELLS = STRIDE >> 2;

/** The rows one behind the other. Its parts are not joined here: that would take long at one go. */
function* eachRow(grid: Grid, written: (cells: readonly Cell[]) => string): Task<string> {
  let text = '';
  const write = (from: number, to: number): void => {
    const lines: string[] = [];
    for (let n = from; n < to; n++) lines.push(written(grid.row(n)));
    text += lines.join('');
  };
  const most = Math.max(1, Math.floor(CELLS / Math.max(1, grid.heads.length)));
  yield* inStretches(grid.length, write, most, true);
  return text;
}

/** The grid as delimited text, lines ended by CRLF as RFC 4180 has it. */
export function* toDelimited(grid: Grid, dialect: LineDialect): Task<Written> {
  const guarded: Guarded = { count: 0 };
  const line = (cells: readonly Cell[]): string => `${delimitedLine(cells, dialect, guarded)}\r\n`;
  const head = line(grid.heads.map((text): Cell => ({ text, free: true })));
  const text = head + (yield* eachRow(grid, line));
  return { text, guarded: guarded.count };
}

/** A line with one text, as it stands above and below tables. */
export function textLine(text: string, dialect: LineDialect): Written {
  const guarded: Guarded = { count: 0 };
  return {
    text: `${delimitedLine([{ text, free: true }], dialect, guarded)}\r\n`,
    guarded: guarded.count,
  };
}

const MARKUP: Record<string, string> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  "'": '&#39;',
};

export const escapeMarkup = (text: string): string => text.replace(/[&<>"']/g, (c) => MARKUP[c]);

/** The grid as an HTML table. @param forPrograms one to be pasted, with a minus that programs read */
export function* toHtml(grid: Grid, caption: string, forPrograms = true): Task<Written> {
  const guarded: Guarded = { count: 0 };
  const heads = grid.heads
    .map((h) => `<th scope="col">${escapeMarkup(harmless(h, guarded))}</th>`)
    .join('');
  const rows = yield* eachRow(
    grid,
    (cells) => `<tr>${cells.map((cell) => htmlCell(cell, guarded, forPrograms)).join('')}</tr>`,
  );
  return {
    text: `<table><caption>${escapeMarkup(caption)}</caption><thead><tr>${heads}</tr></thead><tbody>${rows}</tbody></table>`,
    guarded: guarded.count,
  };
}

function htmlCell(
  { text, free, strong, indent, right, number, head }: Cell,
  guarded: Guarded,
  forPrograms: boolean,
): string {
  const [tag, scope] = head ? ['th', ' scope="row"'] : ['td', ''];
  const style = [indent ? `padding-left:${indent}em` : '', right ? 'text-align:right' : '']
    .filter(Boolean)
    .join(';');
  const inner = escapeMarkup(
    free ? harmless(text, guarded) : number && forPrograms ? plainMinus(text) : text,
  );
  return `<${tag}${scope}${style ? ` style="${style}"` : ''}>${strong ? `<b>${inner}</b>` : inner}</${tag}>`;
}

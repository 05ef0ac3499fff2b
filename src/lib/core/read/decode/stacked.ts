import { HeadsDiffer, IntakeError } from '../../errors';
import { detectEncoding, HEAD_BYTES, TextStream } from '../textDecoding';
import { detectLayout, headRows, trimmedRow, unitIn } from '../layout';
import { inferColumn, marksAmbiguous, uniqueNames } from '../infer';
import { noNumberFacts, numberReader } from '../numbers';
import { isEmptyRow } from '../split';
import { rowsAsText } from './cellGrid';
import type { HeadDifference, HeadSettled } from './source';
import type { Member } from './zip';

/** One of several things of one shape, a file or a sheet: its heads, each once, and the records below. */
export interface Stackable<Cell> {
  readonly name: string;
  readonly heads: readonly string[];
  readonly rows: readonly (readonly Cell[])[];
}

/** A file of delimited text as its header and the lines below. */
interface Lines extends Stackable<string> {
  /** Cells as they were written, numbers by one mark in all files. */
  readonly rows: readonly string[][];
}

/** A heading as two files would both write it. */
const form = (head: string): string => head.trim().toLowerCase().replace(/\s+/g, ' ');

/** What was said of heads that not all files have, by the heads. */
export type HeadsSettled = Readonly<Record<string, HeadSettled>>;

/**
 * Several files of one shape as one: their records one behind the other, each with the name of its file,
 * columns found by their headings wherever they stand. Each file is cut into cells by a layout of its own.
 * @param settled what each head is that not all files have
 * @throws HeadsDiffer where that is not said of all of them
 * @throws IntakeError for a file without a header, or settled heads that are of one file
 */
export function stackedText(members: readonly Member[], settled: HeadsSettled = {}): Uint8Array {
  const files = members.map(linesOf);
  writeByOneMark(files);
  const { heads, rows } = stackedRows(
    files,
    settled,
    { one: 'File', many: 'files' },
    (name) => name,
    '',
  );
  return rowsAsText([heads, ...rows]);
}

/**
 * Records of several things of one shape, one behind the other, in columns found by their headings; the first
 * column says where each stood.
 * @param called what one and several of them are called; the first is the head of that column
 * @param nameCell the name of one as a cell
 * @param none what stands where one lacks a column
 * @throws HeadsDiffer, IntakeError
 */
export function stackedRows<Cell>(
  files: readonly Stackable<Cell>[],
  settled: HeadsSettled,
  called: { readonly one: string; readonly many: string },
  nameCell: (name: string) => Cell,
  none: Cell,
): { heads: string[]; rows: Cell[][] } {
  const differences = differencesOf(files);
  const said = new Map(Object.entries(settled).map(([head, as]) => [form(head), as]));
  const open = differences.filter(({ head }) => !said.has(form(head)));
  if (open.length) {
    const names = files.map(({ name }) => name);
    throw new HeadsDiffer(differWords(open, called.many), open, names, areAlike(files));
  }
  const same = sameAs(files, said);
  const columns = columnsOf(files, said);
  let own = called.one;
  for (let n = 2; columns.some((head) => form(head) === form(own)); n++) own = `${called.one} ${n}`;
  const rows = files.flatMap(({ name, heads, rows: lines }) => {
    const forms = heads.map((head) => same.get(form(head)) ?? form(head));
    const at = columns.map((head) => forms.indexOf(form(head)));
    // Cells past the header stay past it, where they are told.
    return lines.map((row) => [
      nameCell(name),
      ...at.map((c) => row[c] ?? none),
      ...row.slice(heads.length),
    ]);
  });
  return { heads: [own, ...columns], rows };
}

/** Heads that not all files have, in the order in which they are met. */
function differencesOf(files: readonly Stackable<unknown>[]): HeadDifference[] {
  const having = new Map<string, { head: string; files: Set<string> }>();
  for (const { name, heads } of files)
    for (const head of heads) {
      const known = having.get(form(head)) ?? { head, files: new Set() };
      known.files.add(name);
      having.set(form(head), known);
    }
  const partial = [...having.values()].filter((of) => of.files.size < files.length);
  return partial.map(({ head, files: own }) => ({
    head,
    lackedBy: files.flatMap(({ name }) => (own.has(name) ? [] : [name])),
    others: partial.flatMap((other) =>
      other.head !== head && [...other.files].every((name) => !own.has(name)) ? [other.head] : [],
    ),
  }));
}

/** Whether the files share half of the heads of each at least: they are of one kind. */
function areAlike(files: readonly Stackable<unknown>[]): boolean {
  const [first, ...rest] = files;
  const shared = first.heads.filter((head) =>
    rest.every(({ heads }) => heads.some((other) => form(other) === form(head))),
  ).length;
  return files.every(({ heads }) => 2 * shared >= heads.length);
}

const differWords = (differences: readonly HeadDifference[], many: string): string =>
  `The ${many} have not the same columns: ${differences
    .slice(0, 6)
    .map(
      ({ head, lackedBy }) =>
        `${listed(lackedBy)} ${lackedBy.length === 1 ? 'lacks' : 'lack'} “${head}”`,
    )
    .join(
      ', ',
    )}${differences.length > 6 ? ' and more' : ''}. Say what each of these columns is, or give all ${many} the same.`;

/** Which head is written for which. @throws IntakeError */
function sameAs(
  files: readonly Stackable<unknown>[],
  said: ReadonlyMap<string, HeadSettled>,
): ReadonlyMap<string, string> {
  const same = new Map<string, string>();
  for (const [head, as] of said)
    if (typeof as === 'object') {
      const other = form(as.sameAs);
      if ((said.get(other) ?? 'own') !== 'own')
        throw new IntakeError(
          'columns',
          `“${head}” cannot be the same as “${as.sameAs}”, which is itself no column of its own.`,
        );
      const both = files.find(({ heads }) =>
        [head, other].every((one) => heads.some((h) => form(h) === one)),
      );
      if (both)
        throw new IntakeError(
          'columns',
          `“${both.name}” has both “${head}” and “${as.sameAs}”: they are two columns.`,
        );
      same.set(head, other);
    }
  return same;
}

/** All columns, in the order in which the files have them. */
function columnsOf(
  files: readonly Stackable<unknown>[],
  said: ReadonlyMap<string, HeadSettled>,
): string[] {
  const columns = new Map<string, string>();
  for (const { heads } of files)
    for (const head of heads) {
      const as = said.get(form(head));
      if (as === 'out') continue;
      // A head of another name stands where the column it is the same as has not been met yet.
      const own = typeof as === 'object' ? as.sameAs : head;
      if (!columns.has(form(own))) columns.set(form(own), own);
    }
  return [...columns.values()];
}

const listed = (names: readonly string[]): string =>
  `${names
    .slice(0, 3)
    .map((name) => `“${name}”`)
    .join(', ')}${names.length > 3 ? ` and ${names.length - 3} more` : ''}`;

function linesOf({ name, bytes }: Member): Lines {
  const encoding = detectEncoding(bytes.subarray(0, HEAD_BYTES));
  const text = new TextStream(encoding).push(bytes, true);
  const layout = detectLayout(text.slice(0, HEAD_BYTES), encoding, text.length <= HEAD_BYTES);
  if (!layout.header)
    throw new IntakeError(
      'columns',
      `“${name}” has no header that names its columns: files are put together by their headings.`,
    );
  const [first = [], ...lines] = headRows(text, layout, true).filter((row) => !isEmptyRow(row));
  // Units in a line of their own go to the heads, so that no other file has them among its records.
  const units = layout.unitsBelow ? (lines[0] ?? []) : [];
  const rows = lines.slice(units.length ? 1 : 0);
  const heads = first.map((head, c) => (units[c]?.trim() ? `${head} (${unitIn(units[c])})` : head));
  // Columns without a name at the end are columns where they hold something; a name that stands twice is two.
  const width = rows.some((row) => row.slice(trimmedRow(heads).length, heads.length).some(Boolean))
    ? heads.length
    : trimmedRow(heads).length;
  const { names } = uniqueNames(heads.slice(0, width));
  return { name, heads: names, rows: rows.map((row) => [...row]) };
}

/**
 * Numbers of one column that the files write by different marks, 3,5 here and 3.5 there, are written by one: read by
 * the marks of its first file, those of another would be other numbers.
 */
function writeByOneMark(files: readonly Lines[]): void {
  const heads = new Set(files.flatMap((file) => file.heads.map(form)));
  for (const head of heads) {
    const ofFiles = files.map((file) => {
      const at = file.heads.findIndex((own) => form(own) === head);
      const cells = at < 0 ? [] : file.rows.map((row) => row[at] ?? '');
      const figures = cells.filter((cell) => /\d/.test(cell));
      return { file, at, figures, style: inferColumn(head, figures) };
    });
    const numbers = ofFiles.filter(({ style }) => style.type === 'number');
    if (new Set(numbers.map(({ style }) => style.decimal + style.thousands)).size < 2) continue;
    // “1,200” alone may be either: the column stays as it was written, and its doubt is seen.
    if (numbers.some(({ figures, style }) => marksAmbiguous(figures, style))) continue;
    for (const { file, at, style } of numbers) {
      const unit = style.unitInCells ? style.unit : '';
      const reads = numberReader({ ...style, unit }, noNumberFacts());
      for (const row of file.rows) {
        const text = row[at]?.trim() ?? '';
        if (text === '' || Number.isNaN(reads(text))) continue;
        row[at] = text
          .replace(GROUPED, (digits) =>
            style.thousands ? digits.replace(marks(style.thousands), '') : digits,
          )
          .replace(style.decimal, '.');
      }
    }
  }
}

/** The digits of a number, with what stands between them. */
const GROUPED = /\d[\d.,'’ \u00a0\u2009\u202f]*/;
const marks = (thousands: string): RegExp =>
  thousands === ' '
    ? /[ \u00a0\u2009\u202f]/g
    : thousands === "'"
      ? /['’]/g
      : new RegExp(`\\${thousands}`, 'g');

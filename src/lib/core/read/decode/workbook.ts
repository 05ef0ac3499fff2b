import { read, SSF, type CellObject, type WorkBook, type WorkSheet } from '@e965/xlsx';
import { IntakeError } from '../../errors';
import { clockTime, DAY_MS, isoDate, isoDateTime } from '../../table/calendar';
import { counted } from '../../table/format';
import { dayOfSerial } from '../../table/serialDay';
import { doubt, type Doubt } from '../doubts';
import { blocksOf, blockWords, cellsOf, EMPTY, filledIn, together, type Block } from './blocks';
import { BLANK, type CellGrid, type GridCell } from './cellGrid';
import { joinHeadLines, mergedWithin } from './headLines';
import { hiddenInOds, type HiddenParts } from './odsHidden';
import { sheetCells, withOwnNames, type SheetCells } from './sheetXml';
import { xmlText } from './xmlText';
import { namesInZip } from './zip';

/** A sheet as cells, and what a look at the workbook in its program would not tell. */
export interface OpenedSheet {
  readonly grid: CellGrid;
  readonly doubts: readonly Doubt[];
  /** The tables that stand on it, in words, where there are several. */
  readonly blocks: readonly string[];
  /** Which of them the grid is, from 1; 0 for all that stands on it. */
  readonly block?: number;
}

/** A workbook that was opened. */
export interface Workbook {
  readonly sheets: readonly string[];
  /** The sheet that is taken unless another is asked for: the first that can be seen and holds most cells. */
  readonly main: string;
  /** Those that can be seen and hold cells. */
  readonly shown: readonly string[];
  /**
   * One of its sheets, or one of several tables on it: the one with most cells unless another is named.
   * @throws IntakeError where it is not there
   */
  sheet(name: string, block?: number): OpenedSheet;
}

/**
 * Opens a workbook of ISO/IEC 29500 or 26300. Cells give their stored values: a number all of its
 * digits, a date the day it is whatever of it is shown. Formulas are not run: what their program last
 * stored for them is read.
 * @param limit bytes that it may unfold to
 * @throws IntakeError
 */
export function openWorkbook(bytes: Uint8Array, limit: number): Workbook {
  let book: WorkBook;
  const ods = isOds(bytes);
  try {
    book = read(ods ? bytes : withOwnNames(bytes, limit), {
      type: 'array',
      dense: true,
      cellNF: true,
      cellStyles: true,
      cellText: false,
      cellHTML: false,
      cellFormula: false,
    });
  } catch (error) {
    throw new IntakeError(
      'form',
      `The workbook cannot be opened: ${error instanceof Error ? error.message : String(error)}`,
    );
  }
  // The library leaves the names of .ods as XML writes them.
  const byName = new Map(
    book.SheetNames.map((name) => [ods ? xmlText(name) : name, book.Sheets[name]]),
  );
  const sheets = [...byName.keys()];
  const hidden = sheets.filter((_, k) => Boolean(book.Workbook?.Sheets?.[k]?.Hidden));
  const sizes = new Map(sheets.map((name) => [name, cellsIn(byName.get(name))]));
  const size = (name: string): number => sizes.get(name) ?? 0;
  const shown = sheets.filter((name) => !hidden.includes(name) && size(name) > 0);
  const [main] = (shown.length ? shown : sheets).toSorted((a, b) => size(b) - size(a));
  if (main === undefined || size(main) === 0)
    throw new IntakeError('empty', 'The workbook holds no cells to read.');
  return {
    sheets,
    main,
    shown,
    sheet(name, block) {
      const sheet = byName.get(name) ?? {};
      const date1904 = Boolean(book.Workbook?.WBProps?.date1904);
      const told = ods ? null : sheetCells(bytes, sheets.indexOf(name), limit);
      const rows = rowsIn(sheet, date1904, told);
      const taken = tableOf(rows, block);
      const heads = joinHeadLines(taken.cells, mergedWithin(sheet['!merges'] ?? [], taken.at));
      const unseen = ods ? hiddenInOds(bytes, limit).get(name) : undefined;
      return {
        grid: taken.cells,
        blocks: taken.blocks,
        block: taken.block,
        doubts: [
          ...otherSheets(sheets, name, hidden),
          ...taken.doubts,
          ...hiddenDoubts(unseen ?? hiddenIn(sheet)),
          ...heads.doubts,
          ...mergedDoubts(sheet, heads.merged),
        ],
      };
    },
  };
}

const rowsOf = (
  sheet: WorkSheet | undefined,
): readonly (readonly (CellObject | undefined)[] | undefined)[] => sheet?.['!data'] ?? [];

const cellsIn = (sheet: WorkSheet | undefined): number =>
  rowsOf(sheet).reduce((n, row) => n + (row?.length ?? 0), 0);

/** Whether a package is a workbook of ISO/IEC 26300: its cells are one file of it. */
const isOds = (bytes: Uint8Array): boolean => namesInZip(bytes).includes('content.xml');

/** @param told what the sheet's XML says besides */
function rowsIn(sheet: WorkSheet, date1904: boolean, told: SheetCells | null): GridCell[][] {
  const rows = Array.from(rowsOf(sheet), (row): GridCell[] =>
    Array.from(row ?? [], (cell) => (cell ? cellOf(cell, date1904) : BLANK)),
  );
  if (told) tellCells(rows, told);
  fillDown(rows, sheet);
  return rows;
}

/** The row and column of a place such as `C7`, from 0. */
function placeOf(at: string): [row: number, column: number] {
  const [, letters = '', digits = ''] = /^([A-Z]{1,3})(\d{1,7})$/.exec(at) ?? [];
  let column = 0;
  for (const letter of letters) column = column * 26 + letter.charCodeAt(0) - 64;
  return [Number(digits) - 1, column - 1];
}

/** Changes cells to what the XML of their sheet says of them. */
function tellCells(
  rows: GridCell[][],
  { uncalculated, long, dated, sums, bold }: SheetCells,
): void {
  const change = (at: string, now: (cell: GridCell) => GridCell): void => {
    const [r, c] = placeOf(at);
    const row = rows[r];
    if (!row || c < 0) return;
    while (row.length <= c) row.push(BLANK);
    row[c] = now(row[c]);
  };
  for (const [at, formula] of uncalculated)
    change(at, () => ({ kind: 'error', text: `=${formula}` }));
  // As text it keeps its digits; a column of numbers has it unread.
  for (const [at, text] of long) change(at, () => ({ kind: 'text', text }));
  for (const [at, text] of dated) change(at, () => momentOf(text));
  for (const at of bold) change(at, (cell) => (cell === BLANK ? cell : { ...cell, mark: 'bold' }));
  for (const at of sums) change(at, (cell) => ({ ...cell, mark: 'formula' }));
}

/** A cell of a day or a moment as ISO 8601 writes it; others stay text. */
function momentOf(text: string): GridCell {
  const found = /^(\d{4}-\d\d-\d\d)(?:T(\d\d:\d\d(?::\d\d(?:\.\d+)?)?))?Z?$/.exec(text);
  if (!found) return { kind: 'text', text };
  const [, day, clock] = found;
  return clock && !/^00:00(:00(\.0+)?)?$/.test(clock)
    ? { kind: 'datetime', text: `${day} ${clock}` }
    : { kind: 'date', text: day };
}

/** A table of a sheet: its cells, to be changed, and where they stand. */
interface Taken extends Omit<OpenedSheet, 'grid'> {
  readonly cells: GridCell[][];
  readonly at: Block;
}

/** The one table of a sheet that is read, and the others that are not. */
function tableOf(rows: CellGrid, wanted: number | undefined): Taken {
  const found = blocksOf(rows);
  if (wanted !== undefined && wanted > Math.max(1, found.length))
    throw new IntakeError(
      'part',
      `The sheet has no table ${wanted}. It has ${counted(found.length, 'table')}: ${found.map((block) => blockWords(rows, block)).join('; ')}.`,
    );
  const cut = (at: Block): Pick<Taken, 'cells' | 'at'> => ({ at, cells: cellsOf(rows, at) });
  // As many lines above as there are: they can be skipped by their number.
  const all = { ...found.reduce(together, found[0] ?? EMPTY), top: 0 };
  if (found.length < 2) return { ...cut(all), doubts: [], blocks: [] };
  const blocks = found.map((block) => blockWords(rows, block));
  const sizes = found.map((block) => filledIn(rows, block));
  const block = wanted ?? sizes.indexOf(Math.max(...sizes)) + 1;
  if (block === 0) return { ...cut(all), doubts: [], blocks, block };
  const others = blocks.filter((_, k) => k + 1 !== block);
  const besides = filledIn(rows, all) - sizes.reduce((a, b) => a + b, 0);
  const titles = besides > 0 ? `; nor ${counted(besides, 'cell')} outside of them` : '';
  return {
    ...cut(found[block - 1]),
    blocks,
    block,
    doubts: [
      doubt(
        'otherParts',
        others.length,
        `${counted(found.length, 'table')} stand on the sheet. Read is ${blocks[block - 1]}; not read: ${others.join('; ')}${titles}.`,
      ),
    ],
  };
}

function cellOf(cell: CellObject, date1904: boolean): GridCell {
  const { v } = cell;
  switch (cell.t) {
    case 'n':
      return typeof v === 'number' ? numberOrMoment(v, String(cell.z ?? ''), date1904) : BLANK;
    case 'b':
      return { kind: 'yesno', text: v ? 'yes' : 'no' };
    case 'e':
      return { kind: 'error', text: cell.w ?? ERRORS[Number(v)] ?? '#ERROR!' };
    case 's':
      return v === '' || v === undefined ? BLANK : { kind: 'text', text: String(v) };
    default:
      return BLANK;
  }
}

/** Error values by their numbers (ISO/IEC 29500-1, 18.17.2.7 names them). */
const ERRORS: Readonly<Record<number, string>> = {
  0: '#NULL!',
  7: '#DIV/0!',
  15: '#VALUE!',
  23: '#REF!',
  29: '#NAME?',
  36: '#NUM!',
  42: '#N/A',
};

/** A format without what it only writes: quoted and escaped words, colours and locales. */
const bare = (format: string): string =>
  format.replace(/"[^"]*"|\\.|_.|\*./g, '').replace(/\[(?!(h+|m+|s+)\])[^\]]*\]/gi, '');

/** What a format says of the number that it shows. A sheet has some dozens of them. */
type Shown =
  | { readonly moment: true; readonly marks: string }
  | { readonly moment: false; readonly unit: string };
const MOST_FORMATS = 4000;
const formats = new Map<string, Shown>();

function shownBy(format: string): Shown {
  const known = formats.get(format);
  if (known) return known;
  if (formats.size >= MOST_FORMATS) formats.clear();
  const shown: Shown = SSF.is_date(format)
    ? { moment: true, marks: bare(format) }
    : { moment: false, unit: unitOf(format) };
  formats.set(format, shown);
  return shown;
}

function numberOrMoment(value: number, format: string, date1904: boolean): GridCell {
  const shown = shownBy(format);
  if (!shown.moment) {
    const { unit } = shown;
    return unit
      ? { kind: 'number', text: String(value), unit }
      : { kind: 'number', text: String(value) };
  }
  const { marks } = shown;
  // Spans of time, as [h]:mm, are numbers of days; so is what no day has.
  const day = Math.floor(value);
  const ms = Math.round((value - day) * DAY_MS);
  if (/\[[hms]+\]/i.test(marks) || value < 0) return { kind: 'number', text: String(value) };
  if (day === 0 && !/[yd]/i.test(marks) && ms < DAY_MS)
    return { kind: 'time', text: clockTime(ms) };
  const at = dayOfSerial(day, date1904);
  if (at === null) return { kind: 'number', text: String(value) };
  return ms === 0 || ms === DAY_MS
    ? { kind: 'date', text: isoDate(at + (ms === DAY_MS ? 1 : 0)) }
    : { kind: 'datetime', text: isoDateTime(at * DAY_MS + ms) };
}

/** The currency or unit that a number's format writes beside it; '' for none. */
function unitOf(format: string): string {
  const [shown] = format.split(';');
  const currency = /\[\$([^\]-]+)(-[^\]]*)?\]/.exec(shown)?.[1] ?? /[£$€¥]/.exec(shown)?.[0];
  if (currency) return currency.trim();
  return (/"([^"]*)"\s*$/.exec(shown)?.[1] ?? '').trim().slice(0, 40);
}

/** A cell merged over several rows holds for each of them; one over several columns only for its first. */
function fillDown(rows: GridCell[][], sheet: WorkSheet): void {
  for (const { s, e } of sheet['!merges'] ?? []) {
    if (e.c !== s.c) continue;
    const cell = rows[s.r]?.[s.c];
    if (!cell) continue;
    for (let r = s.r + 1; r <= e.r && r < rows.length; r++) {
      const row = rows[r];
      while (row.length <= s.c) row.push(BLANK);
      row[s.c] = cell;
    }
  }
}

function* otherSheets(
  sheets: readonly string[],
  name: string,
  hidden: readonly string[],
): Generator<Doubt> {
  const others = sheets.filter((s) => s !== name);
  if (others.length)
    yield doubt(
      'otherParts',
      others.length,
      `${counted(others.length, 'other sheet')} of the workbook ${others.length === 1 ? 'is' : 'are'} not read: ${others
        .map((s) => `“${s}”${hidden.includes(s) ? ' (hidden)' : ''}`)
        .join(', ')}.`,
    );
}

const hiddenIn = (sheet: WorkSheet): HiddenParts => ({
  rows: (sheet['!rows'] ?? []).flatMap((row, k) => (row?.hidden ? [k + 1] : [])),
  columns: (sheet['!cols'] ?? []).flatMap((column, k) => (column?.hidden ? [k + 1] : [])),
});

function* hiddenDoubts({ rows, columns }: HiddenParts): Generator<Doubt> {
  if (rows.length)
    yield doubt(
      'hidden',
      rows.length,
      `${counted(rows.length, 'row')} of the sheet ${rows.length === 1 ? 'is' : 'are'} hidden in its program and read here all the same: row ${rows.slice(0, 12).join(', ')}${rows.length > 12 ? ' and more' : ''}. Narrow them out if they are not meant to count.`,
    );
  if (columns.length)
    yield doubt(
      'hidden',
      columns.length,
      `${counted(columns.length, 'column')} of the sheet ${columns.length === 1 ? 'is' : 'are'} hidden in its program and read here all the same: column ${columns.slice(0, 12).join(', ')}.`,
    );
}

/** @param heads merged cells that were joined to heads */
function* mergedDoubts(sheet: WorkSheet, heads: number): Generator<Doubt> {
  const merges = (sheet['!merges'] ?? []).length - heads;
  if (merges > 0)
    yield doubt(
      'mergedCells',
      merges,
      `${counted(merges, 'group')} of merged cells. Merged over rows, each of the rows has the value; merged over columns, only the first has it.`,
    );
}

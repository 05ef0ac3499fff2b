import { unzipSync, zipSync } from 'fflate';
import { utils, write, type CellObject, type WorkSheet } from '@e965/xlsx';
import { WriteRefused } from '../errors';
import { fullScalarOf } from '../table/cell';
import { DAY_MS } from '../table/calendar';
import { showCount } from '../table/format';
import { fixHeads } from './fixedHeads';
import { withHeaderRows } from './headerRows';
import type { CalendarPeriod } from '../table/period';
import type { BookSheet, SheetCell, SheetColumn } from './sheets';

/** Rows and columns that a sheet can have (ISO/IEC 29500-1, 18.3.1.73 and 18.3.1.13). */
const MOST_ROWS = 1_048_576;
const MOST_COLUMNS = 16_384;
/** Characters that a cell and a sheet's name can have. */
const LONGEST_CELL = 32_767;
const LONGEST_NAME = 31;

/** Day 0 of 1970 as a serial number; earlier ones than this are counted differently by programs. */
const SERIAL_1970 = 25_569;
const FIRST_SURE = 61;

/**
 * Sheets as a workbook of ISO/IEC 29500 or 26300: numbers, dates and yes or no as what they are, with
 * formats; rows that stand within others in groups that fold, heads that stay in sight (.xlsx). Texts are texts, whatever they begin with:
 * none becomes a formula.
 * @param told is told now and then what share is written
 * @throws WriteRefused where a sheet is longer or wider than a workbook can hold
 */
export function workbookFile(
  sheets: readonly BookSheet[],
  form: 'xlsx' | 'ods',
  told: (share: number) => void = () => undefined,
): Uint8Array {
  const book = utils.book_new();
  const taken = new Set<string>();
  for (const [k, sheet] of sheets.entries()) {
    utils.book_append_sheet(book, sheetOf(sheet), freeName(sheet.name, taken));
    told((WRITTEN.made * (k + 1)) / sheets.length);
  }
  // As it stands: the library packs slowly, and by way of one text of all bytes.
  const bytes: unknown = write(book, { type: 'buffer', bookType: form, compression: false });
  if (!(bytes instanceof Uint8Array)) throw new WriteRefused('The workbook could not be written.');
  const parts: Record<string, Uint8Array> = unzipSync(bytes);
  told(WRITTEN.written);
  const heads = sheets.map(({ columns, notes }) => (columns.length ? rowsAbove(notes) + 1 : 0));
  if (form === 'ods') {
    parts['content.xml'] = withHeaderRows(parts['content.xml'], heads);
    // The kind stands first and as it is, to be found without unpacking (ISO/IEC 26300-3, 3.3).
    const { mimetype, ...rest } = parts;
    return zipSync({ mimetype: [mimetype, { level: 0 }], ...rest }, { level: PACKED });
  }
  fixHeads(parts, heads);
  return zipSync(parts, { level: PACKED });
}

/** Shares of the time that a large workbook takes, as it came out for 200,000 records. */
const WRITTEN = { made: 0.2, written: 0.8 } as const;

/** The fastest way packs sheets to a tenth, and the slower ones to little less. */
const PACKED = 1;

/** Names of sheets are unique whatever their case, and without the marks of an address. */
function freeName(name: string, taken: Set<string>): string {
  const clean =
    name
      .replace(/[\\/?*[\]:']+/g, ' ')
      .replace(/\s+/g, ' ')
      .trim() || 'Sheet';
  let free = clean.slice(0, LONGEST_NAME).trim();
  for (let n = 2; taken.has(free.toLowerCase()); n++) {
    const end = ` ${n}`;
    free = clean.slice(0, LONGEST_NAME - end.length).trim() + end;
  }
  taken.add(free.toLowerCase());
  return free;
}

/** Notes, and a row that parts them from the heads. */
const rowsAbove = (notes: readonly string[]): number => (notes.length ? notes.length + 1 : 0);

function sheetOf({ name, notes, columns, rows }: BookSheet): WorkSheet {
  const above = rowsAbove(notes);
  if (above + 1 + rows.length > MOST_ROWS)
    throw new WriteRefused(
      `“${name}” has ${showCount(rows.length)} rows; a sheet of a workbook holds ${showCount(MOST_ROWS)}. Narrow what counts, or write it as CSV, Arrow or Parquet.`,
    );
  if (columns.length > MOST_COLUMNS)
    throw new WriteRefused(
      `“${name}” has ${showCount(columns.length)} columns; a sheet of a workbook holds ${showCount(MOST_COLUMNS)}.`,
    );
  const formats = columns.map(formatOf);
  const data: CellObject[][] = [
    ...notes.map((note) => [text(note)]),
    ...(notes.length ? [[]] : []),
    columns.map(({ head }) => (head ? text(head) : EMPTY)),
    ...rows.map(({ cells }) => cells.map((cell, c) => cellOf(cell, formats[c]))),
  ];
  refuseTooLong({ name, columns, rows });
  const deep = rows.some(({ level }) => level > 0);
  return {
    '!data': data,
    '!ref': utils.encode_range({
      s: { r: 0, c: 0 },
      e: { r: data.length - 1, c: Math.max(0, columns.length - 1) },
    }),
    '!cols': columns.map((column, c) => ({ wch: widthOf(column, rows, c) })),
    ...(deep && {
      '!rows': [
        ...Array.from({ length: above + 1 }, () => ({})),
        ...rows.map(({ level }) => (level > 0 ? { level: Math.min(level, 7) } : {})),
      ],
    }),
  };
}

/** Rows that are looked at for the width of a column. */
const LOOKED_AT = 200;
const [NARROWEST, WIDEST] = [6, 48];

function widthOf({ head }: SheetColumn, rows: BookSheet['rows'], c: number): number {
  let width = Math.min(head.length, 24);
  for (const { cells } of rows.slice(0, LOOKED_AT)) {
    const cell = cells[c];
    if (cell === null || cell === undefined) continue;
    width = Math.max(
      width,
      typeof cell === 'string' ? cell.length : typeof cell === 'number' ? 12 : 16,
    );
  }
  return Math.max(NARROWEST, Math.min(width + 1, WIDEST));
}

/** A text that a cell cannot hold is never cut. @throws WriteRefused */
function refuseTooLong({
  name,
  columns,
  rows,
}: Pick<BookSheet, 'name' | 'columns' | 'rows'>): void {
  for (const [r, { cells }] of rows.entries())
    for (const [c, cell] of cells.entries())
      if (typeof cell === 'string' && cell.length > LONGEST_CELL)
        throw new WriteRefused(
          `Row ${showCount(r + 1)} of “${name}” has ${showCount(cell.length)} characters in “${columns[c].head}”; a cell of a workbook holds ${showCount(LONGEST_CELL)}. Nothing was written: take delimited text, JSON, Arrow or Parquet.`,
        );
}

const EMPTY: CellObject = { t: 'z' };
const text = (value: string): CellObject => ({ t: 's', v: value });

/** Commas behind the digits divide by a thousand each (ISO/IEC 29500-1, 18.8.31). */
const SCALED = { one: '', thousand: ',', million: ',,' } as const;
const SCALE_WORDS = { one: '', thousand: '" k"', million: '" m"' } as const;

/** A number format as a workbook has it. */
function formatOf({ format }: SheetColumn): string {
  if (!format) return 'General';
  const { decimals = 0, thousands, style, currency, scale, negative } = format;
  const digits = `${thousands ? '#,##0' : '0'}${decimals ? `.${'0'.repeat(decimals)}` : ''}`;
  const sign = style === 'currency' ? `"${currency.replaceAll('"', '')}"` : '';
  const shown = `${sign}${digits}${SCALED[scale]}${SCALE_WORDS[scale]}${style === 'percent' ? '%' : ''}`;
  return negative === 'parentheses' ? `${shown};(${shown})` : shown;
}

const MOMENT_FORMATS = {
  date: 'yyyy-mm-dd',
  datetime: 'yyyy-mm-dd hh:mm:ss',
  time: 'hh:mm:ss',
} as const;

/** Dates that stand for a whole period which a number format can say. */
const WHOLE_FORMATS: Partial<Record<CalendarPeriod, string>> = { year: 'yyyy', month: 'mmm yyyy' };

function cellOf(cell: SheetCell | undefined, format: string): CellObject {
  if (cell === null || cell === undefined) return EMPTY;
  if (typeof cell === 'number') return { t: 'n', v: cell, z: format };
  if (typeof cell === 'boolean') return { t: 'b', v: cell };
  if (typeof cell === 'string') return text(cell);
  const serial =
    cell.of === 'date'
      ? cell.value + SERIAL_1970
      : cell.of === 'time'
        ? cell.value / DAY_MS
        : cell.value / DAY_MS + SERIAL_1970;
  // Days that programs count differently are written out.
  if (cell.of !== 'time' && serial < FIRST_SURE) return text(fullScalarOf(cell.of, cell.value));
  const whole = cell.of === 'date' && cell.grain ? WHOLE_FORMATS[cell.grain] : undefined;
  return { t: 'n', v: serial, z: whole ?? MOMENT_FORMATS[cell.of] };
}

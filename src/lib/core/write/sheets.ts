import type { CalendarPeriod } from '../table/period';
import { countsInWords } from '../ask/countsInWords';
import { talliesOf, type AskResult } from '../ask/result';
import { usualFormat } from '../table/cell';
import { isText, type Column } from '../table/column';
import { headOf, plainFormat, type NumberFormat } from '../table/format';
import type { Table } from '../table/table';
import { keysOfRow } from '../tally/answer/answer';
import { numberFormatOf } from '../tally/answer/figureText';
import type { Formats } from '../tally/spec/formats';
import { readIsoFigure } from '../tally/answer/readFigure';
import type { FigureColumn, FigureTable } from '../tally/answer/result';

/** A moment on its way into a cell: days, milliseconds of a day, or both since 1970. */
export interface Moment {
  readonly of: 'date' | 'datetime' | 'time';
  /** What a date stands for: a year is shown as one. */
  readonly grain?: CalendarPeriod | undefined;
  readonly value: number;
}
/** A value as it is, never as it is shown. */
export type SheetCell = number | string | boolean | Moment | null;

export interface SheetColumn {
  readonly head: string;
  /** How its numbers are shown; null: it has none. */
  readonly format: NumberFormat | null;
}

export interface SheetRow {
  readonly cells: readonly SheetCell[];
  /** How deep the row stands within others; 0 for the outermost. */
  readonly level: number;
  readonly strong: boolean;
}

/** A table on its way into a workbook. */
export interface BookSheet {
  readonly name: string;
  /** What stands above the table. */
  readonly notes: readonly string[];
  readonly columns: readonly SheetColumn[];
  readonly rows: readonly SheetRow[];
}

/** One sheet for each table of each tally, and one before them that says what they are. */
export function sheetsOf(result: AskResult): BookSheet[] {
  const tallies = talliesOf(result);
  const { formats = {}, report } = result;
  const about: string[][] = [
    ...(report ? [[report.title], ...lines(report.intro), []] : []),
    ...countsInWords(result).map((line) => [line]),
    ...result.prepared.map(({ words }) => [words]),
  ];
  const sheets = tallies.flatMap((tally, k) =>
    tally.tables.map((table, t): BookSheet => {
      const name = `${k + 1} ${tally.title ?? tally.kind}${t ? ` ${table.name}` : ''}`;
      return {
        name,
        notes: [tally.words, ...(tally.tables.length > 1 ? [table.caption] : [])],
        ...tableSheet(table, formats),
      };
    }),
  );
  tallies.forEach((tally, k) => {
    about.push([]);
    about.push([`${k + 1}`, tally.words]);
    if (tally.refused) about.push(['', tally.refused]);
    for (const { words } of tally.warnings) about.push(['', words]);
    for (const [line] of lines(tally.note ?? '')) about.push(['', line]);
  });
  return [
    {
      name: 'About',
      notes: [],
      columns: [
        { head: report ? 'Report' : 'What counts', format: null },
        { head: '', format: null },
      ],
      rows: about.map((cells) => ({ cells, level: 0, strong: false })),
    },
    ...sheets,
  ];
}

const lines = (text: string): string[][] =>
  text
    .split(/\r?\n/)
    .filter(Boolean)
    .map((line) => [line]);

/** Labels whose values are numbers are shown as they name their groups. */
const keyFormat = ({ keyType }: FigureColumn): NumberFormat => ({
  ...plainFormat,
  decimals: keyType?.decimals ?? 0,
});

function tableSheet(
  { columns, rows, labels }: FigureTable,
  formats: Formats,
): Pick<BookSheet, 'columns' | 'rows'> {
  return {
    columns: columns.map((column, c) => ({
      head: headOf(column.title, column.unit),
      format:
        c < labels && column.column === undefined
          ? keyFormat(column)
          : withDecimals(numberFormatOf(column, formats), column.type === 'number' ? 2 : 0),
    })),
    rows: rows.map((row) => {
      const keys = keysOfRow(row, labels);
      const isGroup = row.kind === 'group';
      return {
        level: row.level,
        strong: !isGroup,
        cells: row.cells.map((cell, c): SheetCell => {
          // A row that is no group has its words: "Grand total", "12 others".
          if (c < labels)
            return isGroup && keys[c] !== undefined
              ? typed(keys[c], columns[c].keyType?.type, columns[c].keyType?.grain)
              : cell;
          return typed(cell, columns[c].type, columns[c].grain);
        }),
      };
    }),
  };
}

/** A workbook needs a number of decimals where a page takes as many as are needed. */
const withDecimals = (format: NumberFormat, usual: number): NumberFormat => ({
  ...format,
  decimals: format.decimals ?? usual,
});

function typed(
  value: number | string | null,
  type: FigureColumn['type'] | Column['type'] | undefined,
  grain?: CalendarPeriod,
): SheetCell {
  if (typeof value !== 'string') return type === 'yesno' && value !== null ? value === 1 : value;
  if (type === 'date' || type === 'datetime' || type === 'time') {
    const at = readIsoFigure(type, value);
    return at === null ? value : { of: type, value: at, grain };
  }
  if (type === 'yesno') return value === 'yes' ? true : value === 'no' ? false : value;
  return value;
}

/** The records of a list as a sheet: unread cells as the text that stood there. */
export function recordsSheet(
  name: string,
  { columns, length }: Table,
  notes: readonly string[],
  formats: Formats = {},
): BookSheet {
  return {
    name,
    notes,
    columns: columns.map((column) => ({
      head: headOf(column.name, column.unit),
      format: isText(column) ? null : (formats[column.id] ?? usualFormat(column)),
    })),
    rows: Array.from({ length }, (_, i) => ({
      cells: columns.map((column) => recordCell(column, i)),
      level: 0,
      strong: false,
    })),
  };
}

function recordCell(column: Column, i: number): SheetCell {
  if (isText(column)) return column.codes[i] < 0 ? null : column.dictionary[column.codes[i]];
  const value = column.values[i];
  if (value !== value) return column.unread.get(i) ?? null;
  switch (column.type) {
    case 'number':
      return value;
    case 'yesno':
      return value === 1;
    default:
      return { of: column.type, value, grain: column.grain };
  }
}

import type { ListResult } from '../ask/result';
import { isText, type Column } from '../table/column';
import { counted, headOf, showCount } from '../table/format';
import type { Table } from '../table/table';
import { keysOfRow } from '../tally/answer';
import { readIsoFigure } from '../tally/readFigure';
import type { FigureColumn, FigureTable } from '../tally/result';

/** A moment on its way into a cell: days, milliseconds of a day, or both since 1970. */
export interface Moment {
  readonly of: 'date' | 'datetime' | 'time';
  readonly value: number;
}
/** A value as it is, never as it is shown. */
export type SheetCell = number | string | boolean | Moment | null;

/** How a column's numbers are shown. */
export interface SheetColumn {
  readonly head: string;
  readonly decimals: number;
  readonly percent: boolean;
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

/** What counts, in lines: all, each step, set aside, counted. */
export function countsInWords({ list, counts }: ListResult): string[] {
  const steps = counts.rungs
    .filter(({ on }) => on)
    .map(({ words, removed }) => `${words}: ${showCount(removed)} narrowed out`);
  return [
    `${list.name}: ${counted(counts.all, 'record')}`,
    ...steps,
    ...(counts.setAside ? [`${counted(counts.setAside, 'record')} set aside by hand`] : []),
    `${counted(counts.counted, 'record')} counted`,
  ];
}

/** One sheet for each table of each tally, and one before them that says what they are. */
export function sheetsOf(result: ListResult, tallies: ListResult['tallies']): BookSheet[] {
  const about: string[][] = [
    ...countsInWords(result).map((line) => [line]),
    ...result.prepared.map(({ words }) => [words]),
  ];
  const sheets = tallies.flatMap((tally, k) =>
    tally.tables.map((table, t): BookSheet => {
      const name = `${k + 1} ${tally.title ?? tally.kind}${t ? ` ${table.name}` : ''}`;
      return {
        name,
        notes: [tally.words, ...(tally.tables.length > 1 ? [table.caption] : [])],
        ...tableSheet(table),
      };
    }),
  );
  tallies.forEach((tally, k) => {
    about.push([]);
    about.push([`${k + 1}`, tally.words]);
    for (const { words } of tally.warnings) about.push(['', words]);
  });
  return [
    {
      name: 'About',
      notes: [],
      columns: [
        { head: 'What counts', decimals: 0, percent: false },
        { head: '', decimals: 0, percent: false },
      ],
      rows: about.map((cells) => ({ cells, level: 0, strong: false })),
    },
    ...sheets,
  ];
}

function tableSheet({ columns, rows, labels }: FigureTable): Pick<BookSheet, 'columns' | 'rows'> {
  return {
    columns: columns.map(({ title, unit, type, decimals, percent, keyType }, c) => ({
      head: headOf(title, unit),
      decimals:
        c < labels
          ? (keyType?.decimals ?? 0)
          : type === 'share'
            ? 1
            : (decimals ?? (type === 'number' ? 2 : 0)),
      percent: type === 'share' || percent === true,
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
              ? typed(keys[c], columns[c].keyType?.type)
              : cell;
          return typed(cell, columns[c].type);
        }),
      };
    }),
  };
}

function typed(
  value: number | string | null,
  type: FigureColumn['type'] | Column['type'] | undefined,
): SheetCell {
  if (typeof value !== 'string') return type === 'yesno' && value !== null ? value === 1 : value;
  if (type === 'date' || type === 'datetime' || type === 'time') {
    const at = readIsoFigure(type, value);
    return at === null ? value : { of: type, value: at };
  }
  if (type === 'yesno') return value === 'yes' ? true : value === 'no' ? false : value;
  return value;
}

/** The records of a list as a sheet: unread cells as the text that stood there. */
export function recordsSheet(
  name: string,
  { columns, length }: Table,
  notes: readonly string[],
): BookSheet {
  return {
    name,
    notes,
    columns: columns.map((column) => ({
      head: headOf(column.name, column.unit),
      decimals: isText(column) ? 0 : column.decimals,
      percent: !isText(column) && column.percent,
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
      return { of: column.type, value };
  }
}

import { withUnit } from '../../core/table/format';
import type { FigurePlace } from '../../core/tally/answer/result';
import type { Row, Shape, Sketch, TableHead } from '../../engine/protocol';
import type { Drawn } from '../chart/figures';
import type { TallyPage } from '../bench/tallyFigures.svelte';

/** A table of a tally with its first rows, in the columns that are looked at. */
export interface SourceTable {
  readonly head: TableHead;
  readonly rows: readonly Row[];
  /** Rows there are, as it is looked at. */
  readonly length: number;
  /** The row of the whole; it need not be among the first. */
  readonly whole: Row | null;
}

/** What a chart is drawn from: the figures of a tally's tables, whole or in small. */
export interface Source {
  table(name: string): SourceTable | null;
  readonly shape: Shape;
}

export const sourceOf = ({ first, shape }: TallyPage): Source => ({
  table: (name) => first.get(name) ?? null,
  shape,
});

/** Tables with the rows that a report shows of them. */
export const sourceOfTables = (tables: readonly SourceTable[], shape: Shape): Source => ({
  table: (name) => tables.find(({ head }) => head.name === name) ?? null,
  shape,
});

/** The grand total. */
const isWhole = ({ kind, level }: Row): boolean => kind === 'total' && level === 0;

/** The one table of a sketch stands for the first. */
export const sourceOfSketch = ({ table, rows }: Sketch): Source => ({
  table: (name) =>
    table && table.name === name
      ? { head: table, rows, length: table.length, whole: rows.find(isWhole) ?? null }
      : null,
  shape: { kind: 'none' },
});

export const columnAt = ({ head }: SourceTable, key: string): number =>
  head.columns.findIndex((c) => c.key === key);

export const numberAt = (row: Row, column: number): number => {
  const figure = row.figures[column];
  return typeof figure === 'number' ? figure : NaN;
};

/** Where a figure stands in its tally. */
export const placeOf = ({ head }: SourceTable, row: Row, column: number): FigurePlace => ({
  table: head.name,
  row: row.keys,
  column: head.columns[column].key,
});

/** What a row is called: its innermost label. */
export function labelOf({ head }: SourceTable, row: Row): string {
  const texts = row.cells.slice(0, head.labels).filter((text, c) => text && !isSpan(head, c));
  return texts.at(-1) ?? '';
}

/** What rows are called: where some share their innermost label, by those around it as well. */
export function labelsOf(table: SourceTable, rows: readonly Row[]): string[] {
  const names = rows.map((row) => labelOf(table, row));
  const times = new Map<string, number>();
  for (const name of names) times.set(name, (times.get(name) ?? 0) + 1);
  const { labels, columns } = table.head;
  const pathOf = (row: Row): string =>
    row.cells
      .slice(0, labels)
      .filter((text, c) => text && columns[c].type !== 'rank' && !isSpan(table.head, c))
      .join(' › ');
  return names.map((name, k) => ((times.get(name) ?? 0) > 1 ? pathOf(rows[k]) : name));
}

/** Columns that say again from when to when a band or period reaches. */
export const isSpan = (head: TableHead, column: number): boolean =>
  column > 0 && /^(from|to)$/.test(head.columns[column]?.key ?? '');

/** A figure of a table as a chart draws it. */
export function drawnAt(table: SourceTable, row: Row, column: number): Drawn {
  const { title, unit, opens } = table.head.columns[column];
  const marks = row.marks.filter((mark) => mark.column === undefined || mark.column === column);
  const told = marks.map((mark) => mark.words).join(', ');
  return {
    value: numberAt(row, column),
    words: `${labelOf(table, row)}, ${title}: ${withUnit(row.cells[column], unit)}${told ? ` (${told})` : ''}`,
    place: opens ? placeOf(table, row, column) : null,
    few: marks.some((mark) => mark.kind === 'few'),
    partial: marks.some((mark) => mark.kind === 'partial'),
  };
}

/** Rows that are groups: what a chart sets beside one another. */
export const groupsOf = (table: SourceTable): readonly Row[] =>
  table.rows.filter((row) => row.kind === 'group');

/** The first column of figures that a chart can draw; -1 where there is none. */
export const firstFigure = ({ head }: SourceTable): number =>
  head.columns.findIndex(
    (c, k) => k >= head.labels && c.key !== 'records' && c.right && !isSpan(head, k),
  );

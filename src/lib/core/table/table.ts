import { UnknownColumn } from '../errors';
import { columnBytes, type Column } from './column';
import { nearest } from './nearest';

/** Records 0..length-1 as columns of that length. Never changed once made. */
export interface Table {
  readonly length: number;
  readonly columns: readonly Column[];
  /** How many records each row stands for, where a list was condensed; one each unless given. */
  readonly weights?: Float64Array;
}

/** The column of this id; else the one of this name; else of this name whatever its case and outer spaces. */
export function findColumn(columns: readonly Column[], ref: string): Column | null {
  const loose = (text: string): string => text.trim().toLowerCase();
  return (
    columns.find((c) => c.id === ref) ??
    columns.find((c) => c.name === ref) ??
    columns.find((c) => loose(c.name) === loose(ref)) ??
    null
  );
}

/** The column name most like a reference that names none. */
export const nearestColumn = (columns: readonly Column[], ref: string): string | null =>
  nearest(
    ref,
    columns.map((c) => c.name),
  );

/** @throws UnknownColumn */
export function columnOf(table: Table, ref: string): Column {
  const column = findColumn(table.columns, ref);
  if (!column) throw new UnknownColumn(ref, nearestColumn(table.columns, ref));
  return column;
}

export const tableBytes = (table: Table): number =>
  table.columns.reduce((sum, column) => sum + columnBytes(column), 0);

/** Column names by id, for sentences. */
export const namesOf = (table: Table): Map<string, string> =>
  new Map(table.columns.map((c) => [c.id, c.name]));

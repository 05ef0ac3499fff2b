import { columnBytes, type Column } from './column';

/** Records 0..length-1 as columns of that length. Never changed once made. */
export interface Table {
  readonly length: number;
  readonly columns: readonly Column[];
}

export class UnknownColumn extends Error {
  override name = 'UnknownColumn';
  constructor(readonly id: string) {
    super(`There is no column “${id}” in this list.`);
  }
}

export function columnOf(table: Table, id: string): Column {
  const column = table.columns.find((c) => c.id === id);
  if (!column) throw new UnknownColumn(id);
  return column;
}

export const tableBytes = (table: Table): number =>
  table.columns.reduce((sum, column) => sum + columnBytes(column), 0);

/** Column names by id, for sentences. */
export const namesOf = (table: Table): Map<string, string> =>
  new Map(table.columns.map((c) => [c.id, c.name]));

import { z } from 'zod';
import { fullCell } from '../table/cell';
import { isMissing, isText, isUnread, type Column } from '../table/column';
import { showCount } from '../table/format';
import { recordPlace } from '../table/recordNumber';
import type { Table } from '../table/table';
import { readCell } from './columnReader';
import type { ColumnRecipe, Recipe } from './recipe';

/** A cell put right by hand. The reading keeps its old text; this stands beside it. */
export const Correction = z.strictObject({
  /** Its number, from 1. */
  record: z.int().min(1),
  column: z.string(),
  /** What should stand there, as a file would write it. */
  text: z.string().max(10_000),
  /** What stands in the reading. */
  was: z.string().max(10_000),
  /** Why, where it was said. */
  why: z.string().max(500).optional(),
});
export type Correction = z.infer<typeof Correction>;

/**
 * Whether a cell still holds what a correction was made on: the very text, or another writing of its value.
 * @param recipe how its column is read; without one texts alone are compared
 */
export function stillHolds(
  column: Column,
  recipe: ColumnRecipe | undefined,
  { record, was }: Pick<Correction, 'record' | 'was'>,
): boolean {
  const at = recordPlace(record);
  const holds = isMissing(column, at) && !isUnread(column, at) ? '' : fullCell(column, at);
  if (holds === was) return true;
  return recipe !== undefined && readCell(recipe, holds) === readCell(recipe, was);
}

/** `record 12, Delay: “3 min min” is “3 min” (typed twice)` */
export const correctionWords = (
  { record, column, was, text, why }: Correction,
  names: ReadonlyMap<string, string>,
): string =>
  `record ${showCount(record)}, ${names.get(column) ?? column}: ${said(was)} is ${said(text)}${why ? ` (${why})` : ''}`;

const said = (text: string): string => (text === '' ? 'blank' : `“${text}”`);

/**
 * The table with corrections in it, their columns named by their ids. Only the columns concerned are copied; a correction that
 * cannot be read as its column's type stays an unread cell.
 */
export function correct(table: Table, recipe: Recipe, corrections: readonly Correction[]): Table {
  if (corrections.length === 0) return table;
  const byColumn = new Map<string, Correction[]>();
  for (const c of corrections)
    if (c.record <= table.length) byColumn.set(c.column, [...(byColumn.get(c.column) ?? []), c]);
  return {
    length: table.length,
    columns: table.columns.map((column) => {
      const mine = byColumn.get(column.id);
      const read = recipe.columns.find((c) => c.id === column.id);
      return mine && read ? correctColumn(column, mine, (text) => readCell(read, text)) : column;
    }),
  };
}

function correctColumn(
  column: Column,
  corrections: readonly Correction[],
  read: (text: string) => number | string | null,
): Column {
  if (isText(column)) {
    const codes = column.codes.slice();
    const dictionary = [...column.dictionary];
    for (const { record, text } of corrections) {
      const at = recordPlace(record);
      const value = read(text);
      if (value === null) {
        codes[at] = -1;
        continue;
      }
      let code = dictionary.indexOf(text);
      if (code < 0) code = dictionary.push(text) - 1;
      codes[at] = code;
    }
    return { ...column, codes, dictionary };
  }
  const values = column.values.slice();
  const unread = new Map(column.unread);
  for (const { record, text } of corrections) {
    const at = recordPlace(record);
    const value = read(text);
    unread.delete(at);
    values[at] = typeof value === 'number' ? value : NaN;
    if (typeof value === 'number' && Number.isNaN(value)) unread.set(at, text);
  }
  return { ...column, values, unread };
}

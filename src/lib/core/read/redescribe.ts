import { z } from 'zod';
import { dayNumber } from '../table/calendar';
import { isText, type Column } from '../table/column';
import type { Table } from '../table/table';
import { looksLikeYears } from '../table/years';
import type { Recipe } from './recipe';

/** What is said anew of a column that was read: its name, its unit, or that its numbers are years. */
export const ColumnChange = z.strictObject({
  id: z.string(),
  name: z.string().trim().min(1).max(200).optional(),
  unit: z.string().trim().max(40).optional(),
  as: z.literal('years').optional(),
});
export type ColumnChange = z.infer<typeof ColumnChange>;

/** A list whose columns are told otherwise; its cells stay as they were read. */
export interface Redescribed {
  readonly table: Table;
  readonly recipe: Recipe;
}

/**
 * Tells columns of a list otherwise, in the list and in the recipe by which its next files are read.
 * @returns why it cannot be done, where it cannot
 */
export function redescribed(
  { table, recipe }: Redescribed,
  changes: readonly ColumnChange[],
): Redescribed | string {
  for (const { id, unit, as } of changes) {
    const column = table.columns.find((c) => c.id === id);
    const read = recipe.columns.find((c) => c.id === id);
    if (!column || !read) return 'There is no such column in the list.';
    if (unit !== undefined && unit !== read.unit && read.unitInCells)
      return `${column.name} has its unit in its cells, by which it is read: it stays.`;
    if (as && (isText(column) || column.type !== 'number' || !looksLikeYears(column)))
      return `${column.name} holds no years: they are whole numbers from 1800 to 2199.`;
  }
  const of = new Map(changes.map((change) => [change.id, change]));
  const next: Redescribed = {
    table: {
      ...table,
      columns: table.columns.map((column) => told(column, of.get(column.id))),
    },
    recipe: {
      ...recipe,
      columns: recipe.columns.map((column) => {
        const { name = column.name, unit = column.unit, as } = of.get(column.id) ?? {};
        return { ...column, name, unit, ...(as && { type: 'date', grain: 'year' }) };
      }),
    },
  };
  const names = next.table.columns.map(({ name }) => name.toLowerCase());
  const twice = next.table.columns.find(({ name }, k) => names.indexOf(name.toLowerCase()) !== k);
  return twice ? `Two columns would be called “${twice.name}”.` : next;
}

function told(column: Column, change: ColumnChange | undefined): Column {
  if (!change) return column;
  const { name = column.name, unit = column.unit, as } = change;
  if (!as || isText(column)) return { ...column, name, unit };
  const values = column.values.map((year) => (year === year ? dayNumber(year, 1, 1) : NaN));
  return { ...column, name, unit, type: 'date', grain: 'year', decimals: 0, values };
}

import { z } from 'zod';
import { COLUMN_TYPES } from '../../table/column';
import { recipeFor } from '../delimited';
import { uniqueNames, unitOfHead } from '../infer';
import type { ColumnRecipe, Layout, Recipe } from '../recipe';
import type { Source } from './source';

/**
 * A column of a database as the database declares it. Its cells come as delimited text: blank where there is
 * nothing, 1 and 0 for yes and no, days and times as ISO 8601 writes them.
 */
export const DeclaredColumn = z.strictObject({
  name: z.string().max(10_000),
  /** null: nothing is declared, and its cells are judged as those of a file. */
  type: z.enum(COLUMN_TYPES).nullable(),
  /** Numbers of any length: read as text where no double holds them. */
  long: z.boolean().default(false),
  /** Moments, written with their offset and read as UTC. */
  moments: z.boolean().default(false),
});
export type DeclaredColumn = z.infer<typeof DeclaredColumn>;

/** How the text is laid out that a database gives: a line of heads first, nothing above or below. */
const LAYOUT: Layout = {
  format: 'delimited',
  delimiter: ',',
  quote: '"',
  encoding: 'utf-8',
  header: true,
  skipLines: 0,
  notesBelow: 0,
};

/**
 * A recipe by what a database declares; columns of which it declares nothing are judged by their first cells.
 * A cell more at the end of each record, as in text of one column, is none of the list's.
 * @param head the first bytes of the text
 * @throws IntakeError
 */
export function declaredRecipe(
  head: Uint8Array,
  whole: boolean,
  source: Source,
  declared: readonly DeclaredColumn[],
): Recipe {
  const read = recipeFor(head, { ...LAYOUT, source }, whole);
  const heads = declared.map(({ name }) => unitOfHead(name.slice(0, 200)));
  const { names } = uniqueNames(heads.map(({ name }) => name));
  const columns = read.columns
    .filter(({ at }) => at !== null && at < declared.length)
    .map((column): ColumnRecipe => {
      const at = column.at ?? 0;
      const { type, moments, name: given } = declared[at];
      const named = { ...column, source: given, name: names[at] };
      if (type === null) return named;
      return {
        ...named,
        type,
        unit: heads[at].unit,
        unitInCells: false,
        thousands: '',
        decimal: '.',
        dateOrder: 'ymd',
        grain: 'day',
        zone: moments ? 'utc' : 'clock',
        blanks: [],
      };
    });
  return { ...read, columns };
}

/** Columns that need no second look. */
export const declaredAs = (
  recipe: Recipe,
  declared: readonly DeclaredColumn[],
): ReadonlySet<string> =>
  new Set(
    recipe.columns
      .filter(({ at, type }) => at !== null && declared[at]?.type === type && !declared[at].long)
      .map(({ id }) => id),
  );

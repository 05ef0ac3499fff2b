import { IntakeError } from '../errors';
import { nearest } from '../table/nearest';
import type { ColumnType } from '../table/column';
import type { OpenedFile } from './opened';
import { matchRecipe } from './refresh';
import type { Recipe } from './recipe';

/** A recipe fitted to a file, and what the file has besides. */
export interface FittedRecipe {
  readonly recipe: Recipe;
  /** Headings of the file that the recipe does not take. */
  readonly leftOut: readonly string[];
}

/**
 * A recipe that was given, for a file whose columns may stand in another order: they are found by
 * their headings, by place where there is no header. All else of the recipe stands.
 * @param opened the file
 * @param missing what of a column that the file has not: refuse it, or leave it blank
 * @throws IntakeError
 */
export function fitRecipe(
  given: Recipe,
  opened: OpenedFile,
  missing: 'refuse' | 'blank' = 'refuse',
): FittedRecipe {
  // What it does not say of notes below the table, there are none.
  const file = opened.under({ ...given, notesBelow: given.notesBelow ?? 0 });
  const { recipe, differences } = matchRecipe(file, given);
  const gone = differences.flatMap((d) => (d.kind === 'missing' ? [d.column] : []));
  const unsaid = gone.filter((c) => given.columns.some((g) => g.id === c.id && g.at !== null));
  if (missing === 'refuse' && unsaid.length)
    throw new IntakeError(
      'columns',
      `The file has no ${unsaid.map((c) => `“${c.source || c.name}”`).join(', no ')}, which the recipe takes. Its columns are ${file.columns.map((c) => `“${c.source || c.name}”`).join(', ')}.`,
    );
  const leftOut = differences.flatMap((d) => (d.kind === 'new' ? [d.column.name] : []));
  return { recipe, leftOut };
}

/**
 * A recipe with columns read as other types, by their names or ids.
 * @throws IntakeError where there is no such column
 */
export function retyped(recipe: Recipe, types: ReadonlyMap<string, ColumnType>): Recipe {
  const columns = [...recipe.columns];
  const form = (text: string): string => text.trim().toLowerCase();
  for (const [ref, type] of types) {
    const at = columns.findIndex((c) => c.id === ref || form(c.name) === form(ref));
    if (at < 0) {
      const names = columns.map((c) => c.name);
      const near = nearest(ref, names);
      throw new IntakeError(
        'columns',
        `There is no column “${ref}” to read as ${type}. ${near === null ? `The columns are ${names.map((n) => `“${n}”`).join(', ')}.` : `Did you mean “${near}”?`}`,
      );
    }
    columns[at] = { ...columns[at], type };
  }
  return { ...recipe, columns };
}

import { COLUMN_TYPES, type ColumnType } from '$lib/core/table/column';
import { Misused } from './exit';
import { readJson, readRecipe, type ReadAs } from './input';

/** The options that say how a file is read. */
export interface ReadOptions {
  readonly recipe?: string;
  /** `NAME=type`, each given by a `--type` of its own. */
  readonly type: readonly string[];
  readonly missing: string;
  /** A sheet of a workbook. */
  readonly sheet?: string;
  /** A file of a package. */
  readonly member?: string;
  /** A table of a database, or a query. */
  readonly table?: string;
  readonly query?: string;
}

/** How a file is read, from the options of a call. @throws Misused, Failed */
export function readAs({
  recipe,
  type,
  missing,
  sheet,
  member,
  table,
  query,
}: ReadOptions): ReadAs {
  if (table !== undefined && query !== undefined)
    throw new Misused('Give --table or --query, not both.');
  if (missing !== 'refuse' && missing !== 'blank')
    throw new Misused(`--missing is refuse or blank, not “${missing}”.`);
  return {
    recipe: recipe === undefined ? null : readRecipe(readJson(recipe, 'recipe')),
    types: new Map(type.map(typeOf)),
    missing,
    ...((table ?? query) !== undefined && { database: { table, query } }),
    ...((sheet ?? member) !== undefined && {
      wanted: {
        ...(member !== undefined && { member }),
        ...(sheet !== undefined && { part: sheet }),
      },
    }),
  };
}

function typeOf(given: string): [string, ColumnType] {
  const at = given.lastIndexOf('=');
  const type = COLUMN_TYPES.find((name) => name === given.slice(at + 1).trim());
  if (at < 1 || !type)
    throw new Misused(
      `--type takes a column and one of ${COLUMN_TYPES.join(', ')}, as in --type "Fares=number", not “${given}”.`,
    );
  return [given.slice(0, at), type];
}

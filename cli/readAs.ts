import { Source, type HeadSettled } from '$lib/core/read/decode/source';
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
  readonly block?: string;
  readonly head: readonly string[];
  /** A table of a database, or a query. */
  readonly table?: string;
  readonly query?: string;
}

/** In the place of a sheet's name: all of them, one behind the other. */
const ALL = '*';

/** How a file is read, from the options of a call. @throws Misused, Failed */
export function readAs({
  recipe,
  type,
  missing,
  sheet,
  member,
  block,
  head,
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
    ...(((sheet ?? member ?? block) !== undefined || head.length > 0) && {
      wanted: {
        ...(member !== undefined && { member }),
        ...(sheet === ALL ? { all: true as const } : sheet !== undefined && { part: sheet }),
        ...(block !== undefined && { block: blockOf(block) }),
        ...(head.length > 0 && { all: true as const, heads: Object.fromEntries(head.map(headOf)) }),
      },
    }),
  };
}

function blockOf(given: string): number {
  const block = Source.shape.block.unwrap().safeParse(Number(given));
  if (!block.success || given.trim() === '')
    throw new Misused(
      `--block is the number of a table on the sheet, from 1, or 0 for all that stands on it, not “${given}”.`,
    );
  return block.data;
}

/** `Delay=own`, `Cause=out`, `Fare=same:Fares` */
function headOf(given: string): [string, HeadSettled] {
  const at = given.lastIndexOf('=');
  const [head, as] = [given.slice(0, at).trim(), given.slice(at + 1).trim()];
  const other = /^same:(.+)$/.exec(as)?.[1].trim();
  if (at > 0 && head && other) return [head, { sameAs: other }];
  if (at > 0 && head && (as === 'own' || as === 'out')) return [head, as];
  throw new Misused(
    `--head takes a column and what it is, as in --head "Delay=own", --head "Cause=out" or --head "Fare=same:Fares", not “${given}”.`,
  );
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

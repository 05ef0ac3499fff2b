import { AskRefused, IntakeError } from '$lib/core/errors';
import type { Ask } from '$lib/core/ask/ask';
import { askedOfParts } from '$lib/core/ask/askedOfParts';
import { PartsAnswer } from '$lib/core/ask/answerParts';
import type { AskResult } from '$lib/core/ask/result';
import { groupedPart } from '$lib/core/parts/groupedPart';
import type { Roles } from '$lib/core/parts/condense';
import { asTypeOf, declaredTable } from '$lib/core/read/decode/declared';
import { NO_PARTS, type AskedOf, type Source } from '$lib/core/read/decode/source';
import { readTyped } from '$lib/core/read/decode/typed';
import { OpenedFile } from '$lib/core/read/opened';
import type { ColumnRecipe, Recipe } from '$lib/core/read/recipe';
import { takingAll } from '$lib/core/prepare/reshape';
import type { Table } from '$lib/core/table/table';
import { finish } from '$lib/core/task/task';
import { DatabaseFault } from '../errors';
import type { Grouped } from './grouped';
import type { DatabaseSource } from './reading';

/** A list that stays in its database: what it is called, its columns, and where it is. */
export interface ListLeftThere {
  readonly name: string;
  readonly source: DatabaseSource;
  readonly asked: AskedOf;
  /** How its columns are read. */
  readonly recipe: Recipe;
  /** Its columns, without records. */
  readonly columns: Table;
}

/** Records that show what the columns are. */
const SAMPLE = 20_000;

/**
 * A list that stays in its database. Its first records show what its columns are, as far as the database does not
 * declare it.
 * @param recipeOf how its columns are read, from the first records; as they are declared and look unless given
 * @throws DatabaseFault, IntakeError where there is no record
 */
export async function leftThere(
  name: string,
  source: DatabaseSource,
  asked: AskedOf,
  from: Pick<Source, 'form' | 'connection'>,
  recipeOf: (file: OpenedFile) => Recipe = (file) => file.propose(),
): Promise<ListLeftThere> {
  const { columns: declared, parts } = await source.read(asked, SAMPLE);
  for await (const first of parts) {
    const sample = declaredTable(first, declared);
    const at = { ...from, ...('table' in asked ? { part: asked.table } : asked) };
    const content = { kind: 'typed' as const, table: sample, declared };
    const file = OpenedFile.unfolded({ source: at, choices: NO_PARTS, doubts: [], content });
    const recipe = recipeOf(file);
    const { table } = readTyped(sample, recipe);
    return { name, source, asked, recipe, columns: finish(takingAll(table, new Int32Array(0))) };
  }
  throw new IntakeError('noRecords', 'What was asked of the database has no records.');
}

/**
 * Answers an ask about a list that stays in its database: the database groups its records by what the ask looks at,
 * the core goes on from the groups. The figures are those of the list copied.
 * @throws BadAsk where it does not fit the list, AskRefused where it needs records one by one, DatabaseFault
 */
export async function answerLeftThere(
  list: ListLeftThere,
  ask: Ask,
  others: ReadonlyMap<string, Table>,
): Promise<AskResult> {
  const { recipe, columns, source, asked } = list;
  const needed = finish(askedOfParts(ask, columns, others));
  const grouped = placesOf(needed.roles, recipe);
  const answer = new PartsAnswer({ name: list.name, recipe, others }, needed.ask);
  const { parts } = await source.read(asked, Infinity, grouped);
  let found = false;
  for await (const part of parts) {
    found = true;
    const by = keptRecipe(recipe, needed.roles);
    const own = by.columns.map(({ type }, k) => asTypeOf(part.columns[k], part.length, type));
    const kept = readTyped({ length: part.length, columns: own }, by).table.columns;
    const read = { ...part, columns: [...kept, ...part.columns.slice(kept.length)] };
    finish(answer.add(groupedPart(read, columns.columns, needed.roles)));
  }
  if (!found) throw new AskRefused('', 'The list has no records.');
  return answer.finish();
}

const columnOfRecipe = ({ columns }: Recipe, id: string): ColumnRecipe => {
  const column = columns.find((c) => c.id === id);
  if (!column) throw new RangeError(`There is no column “${id}”.`);
  return column;
};

function placesOf({ kept, summed, squared = summed }: Roles, recipe: Recipe): Grouped {
  const places = (ids: readonly string[]): number[] =>
    ids.map((id) => {
      const { at, name } = columnOfRecipe(recipe, id);
      if (at === null)
        throw new DatabaseFault(`“${name}” is not in the database: leave it out of what is asked.`);
      return at;
    });
  return { kept: places(kept), summed: places(summed), squared: places(squared) };
}

/** How the columns kept are read, which stand first in the answer. */
const keptRecipe = (recipe: Recipe, { kept }: Roles): Recipe => ({
  ...recipe,
  width: kept.length,
  columns: kept.map((id, at) => ({ ...columnOfRecipe(recipe, id), at })),
});

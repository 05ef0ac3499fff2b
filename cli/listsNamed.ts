import type { Recipe } from '$lib/core/read/recipe';
import type { Table } from '$lib/core/table/table';
import { Misused } from './exit';
import { BY_ITSELF } from './input';
import { readChecked } from './readChecked';

export interface ListOptions {
  /** Other lists by their names: `Vessels=vessels.csv`. */
  readonly list: readonly string[];
}

/**
 * Other lists that are named with their files.
 * @param recipes how they are read, by their names; by what they show unless given
 * @throws Misused
 */
export async function listsNamed(
  given: readonly string[],
  recipes: Readonly<Record<string, Recipe>> = {},
): Promise<Map<string, Table>> {
  const out = new Map<string, Table>();
  for (const text of given) {
    const at = text.indexOf('=');
    if (at < 1) throw new Misused(`--list takes NAME=FILE, not “${text}”.`);
    const name = text.slice(0, at);
    const recipe = Object.hasOwn(recipes, name) ? recipes[name] : null;
    out.set(name, (await readChecked(text.slice(at + 1), { ...BY_ITSELF, recipe })).table);
  }
  return out;
}

import { keyColumnsOf, overlapOf } from '$lib/core/read/overlap';
import type { Recipe } from '$lib/core/read/recipe';
import { takingAll } from '$lib/core/prepare/reshape';
import { appended, whyApart } from '$lib/core/table/append';
import { counted, showCount } from '$lib/core/table/format';
import { recordPlace } from '$lib/core/table/recordNumber';
import type { Table } from '$lib/core/table/table';
import { finish } from '$lib/core/task/task';
import { Failed, Misused } from './exit';
import { listName, type ReadAs } from './input';
import { note } from './output';
import { readAs, type ReadOptions } from './readAs';
import { readChecked } from './readChecked';

/** Files whose records stand behind those of the first, and what tells a record. */
export interface AddOptions {
  readonly add: readonly string[];
  /** Columns by their names; whole records are compared without any. */
  readonly key: readonly string[];
}

/** A file as the options say, with those that are added to it. @throws Misused, Failed */
export async function readWithAdded(
  options: ReadOptions & AddOptions & { readonly data: string },
  as: ReadAs = readAs(options),
): Promise<{ readonly table: Table; readonly recipe: Recipe }> {
  const list = await readChecked(options.data, as);
  return { table: await withAdded(list, as, options), recipe: list.recipe };
}

/**
 * A list with the records of further files behind its own, read by the same recipe, as the page adds them to a
 * list: those that are there already are left out, and counted in the notes.
 * @throws Misused, Failed
 */
async function withAdded(
  list: { readonly table: Table; readonly recipe: Recipe },
  as: ReadAs,
  { add, key }: AddOptions,
): Promise<Table> {
  let { table } = list;
  if (key.length && add.length === 0)
    throw new Misused('--key says what tells a record of the files given by --add.');
  const keys = key.map((name) => {
    const column = table.columns.find((c) => c.name === name || c.id === name);
    if (!column)
      throw new Misused(
        `There is no column “${name}” to tell records by. There ${keysInWords(table)}.`,
      );
    return column.id;
  });
  for (const file of add) {
    const read = await readChecked(file, { ...as, recipe: list.recipe, types: new Map() });
    const why = whyApart(table.columns, read.table.columns);
    if (why) throw new Failed(`${listName(file)}: ${why}`);
    const { records, differing } = finish(overlapOf(table, read.table, keys));
    const there = new Set(records.map(recordPlace));
    const fresh = Int32Array.from(
      Array.from({ length: read.table.length }, (_, i) => i).filter((i) => !there.has(i)),
    );
    table = appended(table, finish(takingAll(read.table, fresh)));
    note(
      `${listName(file)}: ${counted(fresh.length, 'record')} added${
        records.length
          ? `, ${showCount(records.length)} left out that the list has already${differing ? `, ${showCount(differing)} of them with other values` : ''}`
          : ''
      }.`,
    );
  }
  return table;
}

function keysInWords(table: Table): string {
  const names = (ids: readonly string[]): string =>
    ids.map((id) => `“${table.columns.find((c) => c.id === id)?.name ?? id}”`).join(' and ');
  const keys = finish(keyColumnsOf(table));
  return keys.length ? `would be ${keys.map(names).join(', or ')}` : 'is none that would';
}

import { sql } from 'kysely';
import { z } from 'zod';
import type { ListOrigin } from '$lib/core/bench/origin';
import { COLUMN_TYPES } from '$lib/core/table/column';
import { writing, type Database } from './database';
import { feeds, originOf } from './madeLists';

/** A list as the shelf shows it. */
export interface ShelfList {
  readonly id: number;
  readonly name: string;
  readonly records: number;
  readonly readAt: string;
  readonly fileName: string;
  readonly readings: number;
  readonly benches: readonly { id: number; name: string; savedAt: string }[];
  /** Where it comes from, if from another list. */
  readonly origin: ListOrigin | null;
  /** Names of the lists that are made of it, or take columns or values from it. */
  readonly feeds: readonly string[];
}

export async function shelf(db: Database): Promise<ShelfList[]> {
  const lists = await db
    .selectFrom('lists')
    .innerJoin('readings', 'readings.id', 'lists.current_reading')
    .select([
      'lists.id',
      'lists.name',
      'readings.records',
      'readings.read_at',
      'readings.file_name',
    ])
    .select((eb) =>
      eb
        .selectFrom('readings as r')
        .whereRef('r.list_id', '=', 'lists.id')
        .select(sql<number>`count(*)`.as('n'))
        .as('readings'),
    )
    .orderBy('readings.read_at', 'desc')
    .orderBy('lists.id', 'desc')
    .execute();
  const benches = await db
    .selectFrom('benches')
    .select(['id', 'list_id', 'name', 'saved_at'])
    .orderBy('id')
    .execute();
  const nameOf = new Map(lists.map(({ id, name }) => [id, name]));
  const fed = await feeds(db);
  const origins = new Map<number, ListOrigin | null>();
  for (const { id } of lists) origins.set(id, await originOf(db, id));
  return lists.map((list) => ({
    id: list.id,
    name: list.name,
    records: list.records,
    readAt: list.read_at,
    fileName: list.file_name,
    readings: list.readings ?? 1,
    benches: benches
      .filter((b) => b.list_id === list.id)
      .map((b) => ({ id: b.id, name: b.name, savedAt: b.saved_at })),
    origin: origins.get(list.id) ?? null,
    feeds: [
      ...new Set(fed.filter(({ from }) => from === list.id).map(({ to }) => nameOf.get(to) ?? '')),
    ].filter(Boolean),
  }));
}

export async function findList(db: Database, id: number) {
  return db.selectFrom('lists').selectAll().where('id', '=', id).executeTakeFirst();
}

/** The columns of a reading, as its recipe says them: that alone is looked at. */
const Columns = z.object({
  columns: z.array(
    z.object({ name: z.string(), type: z.enum(COLUMN_TYPES), unit: z.string().default('') }),
  ),
});

/** The names of all lists that can be read, their columns, and which reading each has, of when. */
export async function listNames(db: Database) {
  const lists = await db
    .selectFrom('lists')
    .innerJoin('readings', 'readings.id', 'lists.current_reading')
    .select([
      'lists.id',
      'lists.name',
      'readings.id as reading',
      'readings.read_at as readAt',
      'readings.recipe',
    ])
    .select((eb) =>
      eb
        .selectFrom('benches')
        .whereRef('benches.list_id', '=', 'lists.id')
        .select((of) => of.fn.min('benches.id').as('first'))
        .as('bench'),
    )
    .orderBy('lists.name')
    .execute();
  return lists.map(({ recipe, ...list }) => ({
    ...list,
    columns: Columns.parse(JSON.parse(recipe)).columns,
  }));
}

export const renameList = (db: Database, id: number, name: string) =>
  writing(() => db.updateTable('lists').set({ name }).where('id', '=', id).executeTakeFirst());

export const deleteList = (db: Database, id: number) =>
  writing(() => db.deleteFrom('lists').where('id', '=', id).executeTakeFirst());

import { sql } from 'kysely';
import { writing, type Database } from './database';

/** A list as the shelf shows it. */
export interface ShelfList {
  readonly id: number;
  readonly name: string;
  readonly records: number;
  readonly readAt: string;
  readonly fileName: string;
  readonly readings: number;
  readonly benches: readonly { id: number; name: string; savedAt: string }[];
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
  }));
}

export async function findList(db: Database, id: number) {
  return db.selectFrom('lists').selectAll().where('id', '=', id).executeTakeFirst();
}

/** The names of all lists that can be read. */
export const listNames = (db: Database) =>
  db
    .selectFrom('lists')
    .select(['id', 'name'])
    .where('current_reading', 'is not', null)
    .orderBy('name')
    .execute();

export const renameList = (db: Database, id: number, name: string) =>
  writing(() => db.updateTable('lists').set({ name }).where('id', '=', id).executeTakeFirst());

export const deleteList = (db: Database, id: number) =>
  writing(() => db.deleteFrom('lists').where('id', '=', id).executeTakeFirst());

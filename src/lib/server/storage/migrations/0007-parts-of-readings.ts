import { sql, type Kysely } from 'kysely';
import type { Schema } from '../schema';

/** The files that a reading is put together of, and a name of each reading that is never used twice. */
export async function up(db: Kysely<Schema>): Promise<void> {
  await db.schema.alterTable('readings').addColumn('parts', 'text').execute();
  await db.schema.alterTable('readings').addColumn('stamp', 'text').execute();
  await db
    .updateTable('readings')
    .set({ stamp: sql<string>`lower(hex(randomblob(16)))` })
    .execute();
}

import type { Kysely } from 'kysely';
import type { Schema } from '../schema';

/** What each intake came to, so that one sent again, its answer lost, makes nothing twice. */
export async function up(db: Kysely<Schema>): Promise<void> {
  await db.schema
    .createTable('accepted_intakes')
    .addColumn('id', 'text', (c) => c.primaryKey())
    .addColumn('accepted_at', 'text', (c) => c.notNull())
    .addColumn('result', 'text', (c) => c.notNull())
    .execute();
}

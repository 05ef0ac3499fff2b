import type { Kysely } from 'kysely';
import type { Schema } from '../schema';

/** Lists made of others: where each comes from, and what its newest reading was made of. */
export async function up(db: Kysely<Schema>): Promise<void> {
  await db.schema.alterTable('lists').addColumn('origin', 'text').execute();
  await db.schema.alterTable('lists').addColumn('made_of', 'text').execute();
  await db.schema.alterTable('lists').addColumn('made_fault', 'text').execute();
}

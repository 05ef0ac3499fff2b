import type { Kysely } from 'kysely';
import { wordsForSays } from '$lib/core/ask/upgrade';
import type { Schema } from '../schema';

/** The words of a reading's doubts were `says`. */
export async function up(db: Kysely<Schema>): Promise<void> {
  for (const { id, doubts } of await db.selectFrom('readings').select(['id', 'doubts']).execute())
    await db
      .updateTable('readings')
      .set({ doubts: JSON.stringify(wordsForSays(JSON.parse(doubts))) })
      .where('id', '=', id)
      .execute();
}

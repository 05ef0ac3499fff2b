import type { Kysely } from 'kysely';
import { upgradeBench } from '$lib/core/bench/upgrade';
import type { Schema } from '../schema';

/**
 * Benches and their kept states become questions with a view (document version 2). A document that
 * cannot be read stays as it is: opening it tells why, and nothing is lost.
 */
export async function up(db: Kysely<Schema>): Promise<void> {
  for (const { id, doc } of await db.selectFrom('benches').select(['id', 'doc']).execute()) {
    const newer = upgraded(doc);
    if (newer) await db.updateTable('benches').set({ doc: newer }).where('id', '=', id).execute();
  }
  const states = await db
    .selectFrom('bench_states')
    .select(['bench_id', 'revision', 'doc'])
    .execute();
  for (const { bench_id, revision, doc } of states) {
    const newer = upgraded(doc);
    if (newer)
      await db
        .updateTable('bench_states')
        .set({ doc: newer })
        .where('bench_id', '=', bench_id)
        .where('revision', '=', revision)
        .execute();
  }
}

function upgraded(text: string): string | null {
  try {
    return JSON.stringify(upgradeBench(JSON.parse(text)));
  } catch {
    return null;
  }
}

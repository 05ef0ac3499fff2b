import { z } from 'zod';
import type { Database } from './database';

/** What an intake came to. */
export const Accepted = z.object({
  listId: z.int(),
  reading: z.int(),
  bench: z.int().nullable(),
  /** Records set aside or corrected that benches could not take along to the new reading. */
  lost: z.int(),
});
export type Accepted = z.infer<typeof Accepted>;

const KEPT_DAYS = 30;
const DAY_MS = 86_400_000;

export async function findAccepted(db: Database, intake: string): Promise<Accepted | undefined> {
  const row = await db
    .selectFrom('accepted_intakes')
    .select('result')
    .where('id', '=', intake)
    .executeTakeFirst();
  return row && Accepted.parse(JSON.parse(row.result));
}

/**
 * Does what an intake asks for, once: sent again, it is answered with what it came to at first.
 * Belongs inside a transaction; it writes before it reads, so that no other write comes between.
 */
export async function once(
  tx: Database,
  intake: string,
  work: () => Promise<Accepted>,
): Promise<Accepted> {
  const before = new Date(Date.now() - KEPT_DAYS * DAY_MS).toISOString();
  await tx.deleteFrom('accepted_intakes').where('accepted_at', '<', before).execute();
  const known = await findAccepted(tx, intake);
  if (known) return known;
  const done = await work();
  await tx
    .insertInto('accepted_intakes')
    .values({
      id: intake,
      accepted_at: new Date().toISOString(),
      result: JSON.stringify(done),
    })
    .execute();
  return done;
}

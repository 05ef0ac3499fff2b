import { sql } from 'kysely';
import { z } from 'zod';
import { KeptBands } from '$lib/core/arrange/bands';
import type { Database } from './database';

/** Bands kept in a bench, with the names of its list and of itself. */
export interface BandsElsewhere extends KeptBands {
  readonly list: string;
  readonly bench: string;
}

const Kept = z.array(KeptBands);

/** Band tables that other benches keep by name, newest first; of equal ones only the first. */
export async function bandsElsewhere(db: Database, bench: number): Promise<BandsElsewhere[]> {
  const rows = await db
    .selectFrom('benches')
    .innerJoin('lists', 'lists.id', 'benches.list_id')
    .select([
      'benches.name as bench',
      'lists.name as list',
      sql<string>`json_extract(benches.doc, '$.bands')`.as('bands'),
    ])
    .where('benches.id', '!=', bench)
    .where(sql<boolean>`json_array_length(benches.doc, '$.bands') > 0`)
    .orderBy('benches.saved_at', 'desc')
    .execute();
  const found = rows.flatMap(({ bands, ...from }) =>
    // What a bench of another version keeps otherwise is not offered; nothing of it is lost.
    (Kept.safeParse(JSON.parse(bands)).data ?? []).map((kept) => ({ ...kept, ...from })),
  );
  const seen = new Set<string>();
  return found.filter(({ name, bands }) => {
    const key = JSON.stringify([name, bands]);
    return !seen.has(key) && seen.add(key);
  });
}

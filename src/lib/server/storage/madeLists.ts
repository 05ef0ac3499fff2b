import { sql } from 'kysely';
import { Origin, type ListOrigin } from '$lib/core/bench/origin';
import { writing, type Database } from './database';

/** A list made of another, as it stands. */
export interface MadeStanding {
  readonly origin: Origin;
  /** What its newest reading was made of. */
  readonly madeOf: string | null;
  /** Why it could not be made anew; null where it could. */
  readonly fault: string | null;
}

/** Where a list comes from; null where it was read from a file. */
export async function findOrigin(db: Database, listId: number): Promise<MadeStanding | null> {
  const row = await db
    .selectFrom('lists')
    .select(['origin', 'made_of', 'made_fault'])
    .where('id', '=', listId)
    .executeTakeFirst();
  if (!row?.origin) return null;
  return {
    origin: Origin.parse(JSON.parse(row.origin)),
    madeOf: row.made_of,
    fault: row.made_fault,
  };
}

/** Where a list comes from, as pages say it; null where it was read from a file. */
export async function originOf(db: Database, listId: number): Promise<ListOrigin | null> {
  const found = await findOrigin(db, listId);
  if (!found) return null;
  const bench = await db
    .selectFrom('benches')
    .innerJoin('lists', 'lists.id', 'benches.list_id')
    .select(['benches.id', 'benches.name', 'lists.name as list'])
    .where('benches.id', '=', found.origin.bench)
    .executeTakeFirst();
  const { newest, current } = await db
    .selectFrom('readings')
    .innerJoin('lists', 'lists.id', 'readings.list_id')
    .where('list_id', '=', listId)
    .select((eb) => [
      eb.fn.max('readings.id').as('newest'),
      eb.fn.max('lists.current_reading').as('current'),
    ])
    .executeTakeFirstOrThrow();
  return {
    frozen: found.origin.frozen,
    fault: found.fault,
    putBack: newest !== current,
    bench: bench ?? null,
  };
}

/** Notes where a new list comes from, inside a transaction that is already open. */
export const setOrigin = (tx: Database, listId: number, origin: Origin) =>
  tx
    .updateTable('lists')
    .set({ origin: JSON.stringify(origin) })
    .where('id', '=', listId)
    .execute();

/** Notes what a list was made of, and whether it could be. */
export const setMade = (db: Database, listId: number, madeOf: string, fault: string | null) =>
  writing(() =>
    db
      .updateTable('lists')
      .set({ made_of: madeOf, made_fault: fault })
      .where('id', '=', listId)
      .execute(),
  );

/** One list that feeds another: as what it is made of, or by columns that a bench of it takes. */
export interface Feed {
  readonly from: number;
  readonly to: number;
}

/** Lists that follow a bench, and the benches that look at other lists, by their numbers. */
async function links(db: Database) {
  const made = await sql<{ list: number; bench: number }>`
    select id as list, json_extract(origin, '$.bench') as bench from lists
    where origin is not null and json_extract(origin, '$.frozen') is null`.execute(db);
  const looks = await sql<{ bench: number; list: number }>`
    select distinct benches.id as bench, json_extract(source.value, '$.list') as list
    from benches, json_each(benches.doc, '$.lists') as source
    where json_extract(source.value, '$.list') is not null`.execute(db);
  const benches = await db.selectFrom('benches').select(['id', 'list_id']).execute();
  return {
    made: made.rows,
    looks: looks.rows,
    listOf: new Map(benches.map((b) => [b.id, b.list_id])),
  };
}

/** Which list feeds which. */
export async function feeds(db: Database): Promise<Feed[]> {
  const { made, looks, listOf } = await links(db);
  const found = [
    ...made.map(({ list, bench }) => ({ from: listOf.get(bench), to: list })),
    ...looks.map(({ list, bench }) => ({
      from: list,
      to: listOf.get(bench),
    })),
  ];
  return found.flatMap(({ from, to }) =>
    from === undefined || to === undefined || from === to ? [] : [{ from, to }],
  );
}

/** The lists that follow a bench, at whatever remove: it can take nothing from them. */
export async function followersOf(db: Database, bench: number): Promise<Set<number>> {
  const { made, looks, listOf } = await links(db);
  const found = new Set<number>();
  const follow = (at: number): void => {
    for (const { list } of made.filter((link) => link.bench === at)) {
      if (found.has(list)) continue;
      found.add(list);
      // Benches of that list, and benches that look at it, stand on it in their turn.
      for (const [id, of] of listOf) if (of === list) follow(id);
      for (const look of looks) if (look.list === list) follow(look.bench);
    }
  };
  follow(bench);
  return found;
}

import { StaleRevision } from '../errors';
import type { Bench as BenchDoc } from '$lib/core/bench/document';
import { storedBench } from '$lib/core/bench/upgrade';
import { writing, type Database } from './database';

export interface Bench {
  readonly id: number;
  readonly listId: number;
  readonly name: string;
  readonly revision: number;
  readonly doc: BenchDoc;
  readonly savedAt: string;
}

/** A bench as it was at a revision. */
export interface BenchState {
  readonly revision: number;
  readonly doc: BenchDoc;
  readonly savedAt: string;
}

/** States without a link to them that are kept for each bench. */
const STATES_KEPT = 100;

export async function findBench(db: Database, id: number): Promise<Bench | undefined> {
  const row = await db.selectFrom('benches').selectAll().where('id', '=', id).executeTakeFirst();
  return (
    row && {
      id: row.id,
      listId: row.list_id,
      name: row.name,
      revision: row.revision,
      doc: storedBench(JSON.parse(row.doc)),
      savedAt: row.saved_at,
    }
  );
}

export async function benchesOf(db: Database, listId: number): Promise<Bench[]> {
  const rows = await db
    .selectFrom('benches')
    .select('id')
    .where('list_id', '=', listId)
    .orderBy('id')
    .execute();
  const benches: Bench[] = [];
  for (const { id } of rows) {
    const bench = await findBench(db, id);
    if (bench) benches.push(bench);
  }
  return benches;
}

/** A bench as it was at a revision; its own newest state when that is the one. */
export async function findState(
  db: Database,
  id: number,
  revision: number,
): Promise<BenchState | undefined> {
  const row = await stateRow(db, id, revision);
  return row && { revision, doc: storedBench(JSON.parse(row.doc)), savedAt: row.saved_at };
}

/**
 * Saves a bench's document as the next revision. The same save sent again, its answer lost, is
 * answered as it was the first time.
 * @param follows the revision it was made from
 * @throws StaleRevision with the newest state when another save came first
 */
export const saveBench = (
  db: Database,
  id: number,
  follows: number,
  doc: BenchDoc,
): Promise<Bench | undefined> =>
  writing(() => db.transaction().execute((tx) => saveWithin(tx, id, follows, doc)));

/** The same inside a transaction that is already open. @throws StaleRevision */
export async function saveWithin(
  tx: Database,
  id: number,
  follows: number,
  doc: BenchDoc,
): Promise<Bench | undefined> {
  const text = JSON.stringify(doc);
  const now = new Date().toISOString();
  const row = await tx.selectFrom('benches').selectAll().where('id', '=', id).executeTakeFirst();
  if (!row) return undefined;
  const saved = (revision: number, savedAt: string): Bench => {
    return { id, listId: row.list_id, name: row.name, revision, doc, savedAt };
  };
  if (row.revision !== follows) {
    const after = await stateRow(tx, id, follows + 1);
    if (after?.doc === text) return saved(follows + 1, after.saved_at);
    const newest = await findBench(tx, id);
    if (newest) throw new StaleRevision(newest);
  }
  const revision = row.revision + 1;
  await tx
    .updateTable('benches')
    .set({ doc: text, revision, saved_at: now })
    .where('id', '=', id)
    .execute();
  await tx
    .insertInto('bench_states')
    .values({ bench_id: id, revision, doc: text, saved_at: now, kept: 0 })
    .execute();
  await tx
    .deleteFrom('bench_states')
    .where('bench_id', '=', id)
    .where('kept', '=', 0)
    .where('revision', '<=', revision - STATES_KEPT)
    .execute();
  return saved(revision, now);
}

const stateRow = (db: Database, id: number, revision: number) =>
  db
    .selectFrom('bench_states')
    .select(['doc', 'saved_at'])
    .where('bench_id', '=', id)
    .where('revision', '=', revision)
    .executeTakeFirst();

/** Keeps the present state for good, for a link. @returns its revision */
export function keepState(db: Database, id: number): Promise<number | undefined> {
  return writing(async () => {
    const row = await db
      .selectFrom('benches')
      .select('revision')
      .where('id', '=', id)
      .executeTakeFirst();
    if (!row) return undefined;
    await db
      .updateTable('bench_states')
      .set({ kept: 1 })
      .where('bench_id', '=', id)
      .where('revision', '=', row.revision)
      .execute();
    return row.revision;
  });
}

/** Inserts a bench at revision 1 with that state, inside a transaction that is already open. */
export async function insertBench(
  tx: Database,
  listId: number,
  name: string,
  doc: string,
): Promise<number> {
  const now = new Date().toISOString();
  const { id } = await tx
    .insertInto('benches')
    .values({ list_id: listId, name, revision: 1, doc, saved_at: now })
    .returning('id')
    .executeTakeFirstOrThrow();
  await tx
    .insertInto('bench_states')
    .values({ bench_id: id, revision: 1, doc, saved_at: now, kept: 0 })
    .execute();
  return id;
}

export const addBench = (
  db: Database,
  listId: number,
  name: string,
  doc: BenchDoc,
): Promise<number> =>
  writing(() =>
    db.transaction().execute((tx) => insertBench(tx, listId, name, JSON.stringify(doc))),
  );

export const renameBench = (db: Database, id: number, name: string) =>
  writing(() => db.updateTable('benches').set({ name }).where('id', '=', id).executeTakeFirst());

export const deleteBench = (db: Database, id: number) =>
  writing(() => db.deleteFrom('benches').where('id', '=', id).executeTakeFirst());

import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { Doubt } from '$lib/core/read/doubts';
import { Recipe } from '$lib/core/read/recipe';
import { insertBench } from './benches';
import type { Database } from './database';
import {
  copyParts,
  doubtsOfParts,
  partsOf,
  placesOf,
  ReadingPart,
  type KeptParts,
} from './readingParts';

/** What is known of a reading besides its records. */
export interface ReadingFacts {
  readonly id: number;
  readonly listId: number;
  readonly listName: string;
  readonly number: number;
  readonly fileName: string;
  readonly readAt: string;
  readonly records: number;
  readonly chunks: number;
  readonly recipe: Recipe;
  readonly doubts: readonly Doubt[];
  /** The files it is put together of, in the order of its records. */
  readonly parts: readonly ReadingPart[];
  /** A name that no other reading ever has. */
  readonly stamp: string;
}

export async function findReading(db: Database, id: number): Promise<ReadingFacts | undefined> {
  const row = await db
    .selectFrom('readings')
    .innerJoin('lists', 'lists.id', 'readings.list_id')
    .select([
      'readings.id',
      'list_id',
      'lists.name',
      'number',
      'file_name',
      'read_at',
      'records',
      'recipe',
      'doubts',
      'parts',
      'stamp',
    ])
    .where('readings.id', '=', id)
    .executeTakeFirst();
  if (!row) return undefined;
  const { n } = await db
    .selectFrom('chunks')
    .where('reading_id', '=', id)
    .select((eb) => eb.fn.countAll<number>().as('n'))
    .executeTakeFirstOrThrow();
  const parts = partsOf(row.parts, {
    fileName: row.file_name,
    readAt: row.read_at,
    records: row.records,
    chunks: n,
    doubts: z.array(Doubt).parse(JSON.parse(row.doubts)),
  });
  return {
    id: row.id,
    listId: row.list_id,
    listName: row.name,
    number: row.number,
    fileName: row.file_name,
    readAt: row.read_at,
    records: row.records,
    chunks: n,
    recipe: Recipe.parse(JSON.parse(row.recipe)),
    doubts: doubtsOfParts(parts),
    parts,
    stamp: row.stamp ?? '',
  };
}

/** A reading's stamp; undefined where there is no such reading. */
export const stampOf = async (db: Database, id: number): Promise<string | undefined> =>
  (await db.selectFrom('readings').select('stamp').where('id', '=', id).executeTakeFirst())
    ?.stamp ?? undefined;

/** A chunk's Arrow IPC stream, as stored. */
export async function findChunk(
  db: Database,
  reading: number,
  n: number,
): Promise<Uint8Array | undefined> {
  const row = await db
    .selectFrom('chunks')
    .select('data')
    .where('reading_id', '=', reading)
    .where('n', '=', n)
    .executeTakeFirst();
  return row?.data;
}

/** A file of a reading, without its doubts. */
const facts = ({ fileName, readAt, records }: ReadingPart) => ({ fileName, readAt, records });

export async function readingsOf(db: Database, listId: number) {
  const rows = await db
    .selectFrom('readings')
    .innerJoin('lists', 'lists.id', 'readings.list_id')
    .select([
      'readings.id',
      'readings.number',
      'readings.file_name',
      'readings.read_at',
      'readings.records',
      'readings.parts',
      'lists.current_reading',
    ])
    .where('list_id', '=', listId)
    .orderBy('number', 'desc')
    .execute();
  return rows.map(({ current_reading, parts, ...reading }) => ({
    ...reading,
    /** Its files where there are several; empty where it is one file's. */
    parts: parts === null ? [] : z.array(ReadingPart).parse(JSON.parse(parts)).map(facts),
    current: reading.id === current_reading,
  }));
}

/** Makes a reading the one that the list's new benches start from. */
export const setCurrentReading = (db: Database, listId: number, reading: number) =>
  db.updateTable('lists').set({ current_reading: reading }).where('id', '=', listId).execute();

/** A reading about to be stored. */
export interface NewReading {
  /** The list it refreshes; null makes a new list. */
  readonly listId: number | null;
  readonly listName: string;
  readonly fileName: string;
  readonly records: number;
  readonly recipe: Recipe;
  readonly doubts: readonly Doubt[];
  /** Parts of the reading before that come first; the records sent are added to them. */
  readonly kept?: KeptParts;
  /** The files of which the records sent are, where it is not one. */
  readonly parts?: readonly ReadingPart[];
  /** The first bench of a new list: its document for a given reading. */
  readonly bench: { readonly name: string; readonly docFor: (reading: number) => string } | null;
}

/**
 * Stores a reading, its chunks and a new list's first bench, inside a transaction that is already
 * open.
 */
export async function storeReading(
  tx: Database,
  given: NewReading,
  chunks: Iterable<Uint8Array>,
): Promise<{ listId: number; reading: number; bench: number | null }> {
  const now = new Date().toISOString();
  const listId =
    given.listId ??
    (
      await tx
        .insertInto('lists')
        .values({ name: given.listName, created_at: now, current_reading: null })
        .returning('id')
        .executeTakeFirstOrThrow()
    ).id;
  const last = await tx
    .selectFrom('readings')
    .where('list_id', '=', listId)
    .select((eb) => eb.fn.max('number').as('n'))
    .executeTakeFirst();
  const sent = [...chunks];
  const before = given.kept ? placesOf(given.kept).map(({ part }) => part) : [];
  const own: ReadingPart = {
    fileName: given.fileName,
    readAt: now,
    records: given.records,
    chunks: sent.length,
    doubts: [...given.doubts],
  };
  const parts = given.parts ?? (sent.length ? [...before, own] : before);
  const { id: reading } = await tx
    .insertInto('readings')
    .values({
      list_id: listId,
      number: Number(last?.n ?? 0) + 1,
      file_name: given.fileName,
      read_at: now,
      records: parts.reduce((sum, part) => sum + part.records, 0),
      recipe: JSON.stringify(given.recipe),
      doubts: JSON.stringify(given.doubts),
      parts: given.kept || given.parts ? JSON.stringify(parts) : null,
      stamp: randomUUID(),
    })
    .returning('id')
    .executeTakeFirstOrThrow();
  let n = given.kept ? await copyParts(tx, reading, given.kept) : 0;
  for (const data of sent)
    await tx.insertInto('chunks').values({ reading_id: reading, n: n++, data }).execute();
  await setCurrentReading(tx, listId, reading);
  const bench = given.bench
    ? await insertBench(tx, listId, given.bench.name, given.bench.docFor(reading))
    : null;
  return { listId, reading, bench };
}

import { TableAssembler } from '$lib/core/table/arrowRead';
import type { Database } from '../../storage/database';
import { AddRefused } from '../../errors';
import { writing } from '../../storage/database';
import { followParts, placesOf, type KeptParts } from '../../storage/readingParts';
import { findChunk, storeReading, type ReadingFacts } from '../../storage/readings';
import { bringBenches, tablesOfBenches } from '../bringBenches';
import type { ThreadTask } from '../tasks';
import { onCurrentReading } from './onCurrentReading';

/**
 * Makes a reading without one of the files that the current one is put together of, and brings the list's benches
 * to it; the one before stays.
 * @returns records set aside or corrected that were of that file
 * @throws AddRefused
 */
export const takeOut = (
  task: Extract<ThreadTask, { task: 'takeOut' }>,
): Promise<{ reading: number; lost: number }> =>
  onCurrentReading(task, 'files', async (db, facts) => {
    const { listId, part } = task;
    if (part >= facts.parts.length || facts.parts.length === 1)
      throw new AddRefused('A list is made of at least one file; there is none to take out.');
    const kept: KeptParts = { of: facts, without: part };
    const table = await tableOf(db, facts, kept);
    const tables = await tablesOfBenches(db, listId);
    const last = placesOf(kept).at(-1)?.part;
    return writing(() =>
      db.transaction().execute(async (tx) => {
        const stored = await storeReading(
          tx,
          {
            listId,
            listName: facts.listName,
            fileName: last?.fileName ?? facts.fileName,
            records: 0,
            recipe: facts.recipe,
            doubts: [],
            kept,
            bench: null,
          },
          [],
        );
        const known = { reading: facts.id, follow: followParts(kept) };
        const lost = await bringBenches(tx, listId, stored.reading, table, tables, null, known);
        return { reading: stored.reading, lost };
      }),
    );
  });

/** The records that stay. */
async function tableOf(db: Database, facts: ReadingFacts, kept: KeptParts) {
  const places = placesOf(kept);
  const assembler = new TableAssembler(places.reduce((sum, { part }) => sum + part.records, 0));
  for (const { part, firstChunk } of places)
    for (let n = firstChunk; n < firstChunk + part.chunks; n++) {
      const data = await findChunk(db, facts.id, n);
      if (data) assembler.push(data);
    }
  return assembler.finish();
}

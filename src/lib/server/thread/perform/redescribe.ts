import { redescribed } from '$lib/core/read/redescribe';
import { CHUNK_RECORDS } from '$lib/core/table/arrowFacts';
import { encodeRecords } from '$lib/core/table/arrowWrite';
import type { Table } from '$lib/core/table/table';
import { AddRefused } from '../../errors';
import { writing } from '../../storage/database';
import type { ReadingPart } from '../../storage/readingParts';
import { storeReading } from '../../storage/readings';
import { bringBenches, tablesOfBenches } from '../bringBenches';
import { loadTable } from '../load';
import type { ThreadTask } from '../tasks';
import { onCurrentReading } from './onCurrentReading';

/**
 * Makes a reading of the same cells whose columns are told otherwise, and brings the list's benches to it; the one
 * before stays.
 * @throws AddRefused
 */
export const redescribe = (
  task: Extract<ThreadTask, { task: 'redescribe' }>,
): Promise<{ reading: number; lost: number }> =>
  onCurrentReading(task, 'columns', async (db, facts) => {
    const { listId, reading } = task;
    const next = redescribed(await loadTable(db, reading), task.changes);
    if (typeof next === 'string') throw new AddRefused(next);
    const tables = await tablesOfBenches(db, listId);
    const same = (number: number): number => number;
    return writing(() =>
      db.transaction().execute(async (tx) => {
        const stored = await storeReading(
          tx,
          {
            listId,
            listName: facts.listName,
            fileName: facts.fileName,
            records: facts.records,
            recipe: next.recipe,
            doubts: [],
            // However its chunks were sent before.
            parts: facts.parts.map((part) => ({ ...part, chunks: chunksFor(part.records) })),
            bench: null,
          },
          chunksOf(next.table, facts.parts),
        );
        const known = { reading, follow: same };
        const lost = await bringBenches(
          tx,
          listId,
          stored.reading,
          next.table,
          tables,
          null,
          known,
        );
        return { reading: stored.reading, lost };
      }),
    );
  });

const chunksFor = (records: number): number => Math.max(1, Math.ceil(records / CHUNK_RECORDS));

/** The table in chunks, those of each part for itself. */
function* chunksOf(table: Table, parts: readonly ReadingPart[]): Generator<Uint8Array> {
  let from = 0;
  for (const { records } of parts) {
    const end = from + records;
    for (let n = 0; n < chunksFor(records); n++) {
      const at = from + n * CHUNK_RECORDS;
      yield encodeRecords(table, at, Math.min(end, at + CHUNK_RECORDS));
    }
    from = end;
  }
}

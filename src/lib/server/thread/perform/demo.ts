import { readFileSync } from 'node:fs';
import type { Bench } from '$lib/core/bench/document';
import { setGroups, setMeasures, setShowDown } from '$lib/core/bench/edits';
import { newBench } from '$lib/core/bench/newBench';
import { openLedger } from '$lib/core/bench/tray';
import { HEAD_BYTES } from '$lib/core/read/decode';
import { DelimitedReader, proposeRecipe } from '$lib/core/read/delimited';
import { examine } from '$lib/core/read/examine';
import { chunkCount, encodeChunk } from '$lib/core/table/arrowWrite';
import { openDatabase } from '../../storage/database';
import { storeReading, type StoredReading } from '../../storage/readings';
import type { Task } from '../tasks';

/** Reads a file of the demo by its own recipe and stores it. */
export async function demo(task: Extract<Task, { task: 'demo' }>): Promise<StoredReading> {
  const bytes = new Uint8Array(readFileSync(task.file));
  const recipe = proposeRecipe(bytes.subarray(0, HEAD_BYTES), bytes.length <= HEAD_BYTES);
  const reader = new DelimitedReader(recipe);
  reader.push(bytes, true);
  const reading = reader.finish();
  const { doubts, totals } = examine(recipe, reading);
  const { table } = reading;
  const docFor = (id: number): string => {
    const doc = newBench(
      table,
      id,
      totals.map((t) => t.record),
    );
    const keys = task.groups.filter((column) => table.columns.some((c) => c.id === column));
    return JSON.stringify(keys.length ? arrangeDemo(doc, keys) : doc);
  };
  const db = openDatabase(task.database, task.limitBytes);
  try {
    return await storeReading(
      db,
      {
        listId: null,
        listName: task.listName,
        fileName: task.file.split(/[\\/]/).pop() ?? '',
        records: table.length,
        recipe,
        doubts,
        bench: { name: 'Bench 1', docFor },
      },
      Array.from({ length: chunkCount(table) }, (_, n) => encodeChunk(table, n)),
    );
  } finally {
    await db.destroy();
  }
}

/** The demo's first bench is grouped, so that a newcomer sees a ledger at once. */
function arrangeDemo(doc: Bench, keys: readonly string[]): Bench {
  const ledger = openLedger(doc);
  if (!ledger) return doc;
  const grouped = setGroups(
    doc,
    keys.map((column) => ({ column, loose: true, order: { by: 'label', descending: false } })),
  );
  return setShowDown(
    setMeasures(
      grouped,
      ledger.tally.measures.map((m) =>
        m.column === 'delay' ? { kind: 'mean', column: 'delay' } : m,
      ),
    ),
    keys.length,
  );
}

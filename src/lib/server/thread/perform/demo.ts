import { existsSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { z } from 'zod';
import type { Bench } from '$lib/core/bench/document';
import { setGroups, setMeasures, setShowDown } from '$lib/core/bench/edits';
import { newBench } from '$lib/core/bench/newBench';
import { openLedger } from '$lib/core/bench/tray';
import { recordNumber } from '$lib/core/table/recordNumber';
import { addTally } from '$lib/core/bench/trayEdits';
import { HEAD_BYTES } from '$lib/core/read/textDecoding';
import { DelimitedReader, proposeRecipe } from '$lib/core/read/delimited';
import { examine } from '$lib/core/read/examine';
import { Tally } from '$lib/core/tally/spec/specs';
import { chunkCount, encodeChunk } from '$lib/core/table/arrowWrite';
import { openDatabase, writing } from '../../storage/database';
import { storeReading } from '../../storage/readings';
import type { ThreadTask } from '../tasks';

/** Reads a file of the demo by its own recipe and stores it. */
export async function demo(task: Extract<ThreadTask, { task: 'demo' }>): Promise<void> {
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
      totals.map((t) => recordNumber(t.record)),
    );
    const keys = task.groups.filter((column) => table.columns.some((c) => c.id === column));
    return JSON.stringify(withTray(keys.length ? arrangeDemo(doc, keys) : doc, task.file));
  };
  const db = openDatabase(task.database, task.limitBytes);
  try {
    const given = {
      listId: null,
      listName: task.listName,
      fileName: path.basename(task.file),
      records: table.length,
      recipe,
      doubts,
      bench: { name: 'Bench 1', docFor },
    };
    const chunks = Array.from({ length: chunkCount(table) }, (_, n) => encodeChunk(table, n));
    await writing(() => db.transaction().execute((tx) => storeReading(tx, given, chunks)));
  } finally {
    await db.destroy();
  }
}

const Trays = z.record(
  z.string(),
  z.array(z.strictObject({ name: z.string(), note: z.string().default(''), tally: Tally })),
);

/** The tallies that `trays.json` beside the file has for it, behind the ledger, which is open. */
function withTray(doc: Bench, file: string): Bench {
  const beside = path.join(path.dirname(file), 'trays.json');
  if (!existsSync(beside)) return doc;
  const trays = Trays.parse(JSON.parse(readFileSync(beside, 'utf8')));
  const own = trays[path.basename(file)] ?? [];
  const filled = own.reduce(
    (bench, { name, note, tally }) => addTally(bench, tally, name, note),
    doc,
  );
  return { ...filled, open: doc.open };
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

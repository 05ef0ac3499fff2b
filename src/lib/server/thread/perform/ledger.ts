import { fromParts } from '$lib/core/ask/resultParts';
import { isLedger } from '$lib/core/bench/tray';
import { resultFile } from '$lib/core/write/resultFile';
import type { Table } from '$lib/core/table/table';
import type { Engine } from '$lib/engine/engine';
import { openEngine } from '$lib/engine/openEngine';
import { openDatabase } from '../../storage/database';
import { loadTable } from '../load';
import type { ThreadTask } from '../tasks';

/** The list asked last stays in memory for the next question. */
let held: { key: string; engine: Engine } | null = null;

/** The engine of a stored reading; the one asked last is kept. */
export async function engineOf(
  database: string,
  reading: number,
  others: Readonly<Record<string, number>>,
): Promise<Engine> {
  const key = JSON.stringify([database, reading, others]);
  if (held?.key === key) return held.engine;
  const db = openDatabase(database);
  try {
    const { table, recipe, listName } = await loadTable(db, reading);
    const beside = new Map<string, Table>();
    for (const [name, other] of Object.entries(others))
      beside.set(name, (await loadTable(db, other)).table);
    const engine = openEngine({ name: listName, table, recipe, others: beside });
    held = { key, engine };
    return engine;
  } finally {
    await db.destroy();
  }
}

/** The first ledger of a stored bench: what counts, heads and footing, or the ledger as delimited text. */
export async function ledger({
  database,
  doc,
  others,
  csv,
  dialect,
}: Extract<ThreadTask, { task: 'ledger' }>): Promise<unknown> {
  const engine = await engineOf(database, doc.reading, others);
  const counts = engine.now('resolve', { doc });
  const tally = doc.tray.find(isLedger)?.id ?? doc.open;
  const at = { token: counts.token, tally };
  if (csv) {
    const { token } = counts;
    const { values } = dialect;
    const asked = engine.now('asked', { token, tallies: [tally], values, report: false });
    return (await resultFile(fromParts(asked.parts), 'csv', dialect)).bytes;
  }
  const page = engine.now('ledger', at);
  return {
    ...counts,
    ...page,
    faults: [...counts.faults, ...page.faults],
    footing: engine.now('footing', at),
  };
}

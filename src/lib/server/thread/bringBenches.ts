import { moveBench } from '$lib/core/bench/move';
import type { Table } from '$lib/core/table/table';
import { benchesOf, saveBench } from '../storage/benches';
import type { Database } from '../storage/database';
import { loadTable } from './load';

/** Brings every bench of a list to a reading. @returns records set aside or corrected that were not found again */
export async function bringBenches(
  db: Database,
  listId: number,
  reading: number,
  to: Table,
): Promise<number> {
  const tables = new Map<number, Table>();
  let lost = 0;
  for (const bench of await benchesOf(db, listId)) {
    if (bench.doc.reading === reading) continue;
    const from = tables.get(bench.doc.reading) ?? (await loadTable(db, bench.doc.reading)).table;
    tables.set(bench.doc.reading, from);
    const moved = moveBench(bench.doc, from, to, reading);
    lost += moved.lost;
    await saveBench(db, bench.id, bench.revision, moved.doc);
  }
  return lost;
}

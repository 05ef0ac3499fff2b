import { finish } from '$lib/core/task/task';
import { moveBench, type FollowRecord } from '$lib/core/bench/move';
import type { Table } from '$lib/core/table/table';
import { benchesOf, saveWithin } from '../storage/benches';
import type { Database } from '../storage/database';
import { loadTable } from './load';

/** Tables by the reading they are of. */
export type TablesByReading = Map<number, Table>;

/** The tables that a list's benches stand on, read before a transaction that would hold up saves. */
export async function tablesOfBenches(db: Database, listId: number): Promise<TablesByReading> {
  const tables: TablesByReading = new Map();
  for (const { doc } of await benchesOf(db, listId))
    if (!tables.has(doc.reading)) tables.set(doc.reading, (await loadTable(db, doc.reading)).table);
  return tables;
}

/**
 * Brings every bench of a list to a reading, inside a transaction that is already open.
 * @param setAside records that were set aside for totals when the reading was accepted; as before unless given
 * @param known where each record of one reading went, where that is known; benches of others look for theirs
 * @returns records set aside or corrected that were not found again
 */
export async function bringBenches(
  tx: Database,
  listId: number,
  reading: number,
  to: Table,
  tables: TablesByReading,
  setAside: readonly number[] | null = null,
  known: { readonly reading: number; readonly follow: FollowRecord } | null = null,
): Promise<number> {
  let lost = 0;
  for (const bench of await benchesOf(tx, listId)) {
    if (bench.doc.reading === reading) continue;
    const from = tables.get(bench.doc.reading) ?? (await loadTable(tx, bench.doc.reading)).table;
    tables.set(bench.doc.reading, from);
    const follow = known?.reading === bench.doc.reading ? known.follow : null;
    const decided = known && !follow ? null : setAside;
    const moved = finish(moveBench(bench.doc, from, to, reading, decided, follow));
    lost += moved.lost;
    await saveWithin(tx, bench.id, bench.revision, moved.doc);
  }
  return lost;
}

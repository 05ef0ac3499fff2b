import { openDatabase } from '../../storage/database';
import { setCurrentReading } from '../../storage/readings';
import { bringBenches } from '../bringBenches';
import { loadTable } from '../load';
import type { Task } from '../tasks';

/** Makes a reading current, and brings every bench of the list to it. @returns records not found again */
export async function move({
  database,
  limitBytes,
  listId,
  reading,
}: Extract<Task, { task: 'move' }>): Promise<{ lost: number }> {
  const db = openDatabase(database, limitBytes);
  try {
    const { table } = await loadTable(db, reading);
    await setCurrentReading(db, listId, reading);
    return { lost: await bringBenches(db, listId, reading, table) };
  } finally {
    await db.destroy();
  }
}

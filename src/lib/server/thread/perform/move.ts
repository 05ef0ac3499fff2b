import { openDatabase, writing } from '../../storage/database';
import { setCurrentReading } from '../../storage/readings';
import { bringBenches, tablesOfBenches } from '../bringBenches';
import { loadTable } from '../load';
import type { ThreadTask } from '../tasks';

/**
 * Makes a reading current and brings every bench of the list to it: all of it or nothing.
 * @returns records not found again
 */
export async function move({
  database,
  limitBytes,
  listId,
  reading,
}: Extract<ThreadTask, { task: 'move' }>): Promise<{ lost: number }> {
  const db = openDatabase(database, limitBytes);
  try {
    const { table } = await loadTable(db, reading);
    const tables = await tablesOfBenches(db, listId);
    return await writing(() =>
      db.transaction().execute(async (tx) => {
        // The write comes first: no save of a bench can come between what is read and written here.
        await setCurrentReading(tx, listId, reading);
        return { lost: await bringBenches(tx, listId, reading, table, tables) };
      }),
    );
  } finally {
    await db.destroy();
  }
}

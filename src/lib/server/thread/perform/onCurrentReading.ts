import { AddRefused } from '../../errors';
import { openDatabase, type Database } from '../../storage/database';
import { findList } from '../../storage/lists';
import { findReading, type ReadingFacts } from '../../storage/readings';

/** A list's reading that work is asked of. */
interface Asked {
  readonly database: string;
  readonly limitBytes: number;
  readonly listId: number;
  readonly reading: number;
}

/**
 * Work on the current reading of a list, with the database open as long as it takes.
 * @param look what to look at again, where the list has moved on
 * @throws AddRefused where the reading is not, or no longer, the current one of that list
 */
export async function onCurrentReading<T>(
  { database, limitBytes, listId, reading }: Asked,
  look: string,
  work: (db: Database, facts: ReadingFacts) => Promise<T>,
): Promise<T> {
  const db = openDatabase(database, limitBytes);
  try {
    const [facts, list] = [await findReading(db, reading), await findList(db, listId)];
    if (!facts || list?.current_reading !== reading)
      throw new AddRefused(`The list has moved on meanwhile. Look at its ${look} again.`);
    return await work(db, facts);
  } finally {
    await db.destroy();
  }
}

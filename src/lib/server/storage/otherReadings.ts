import type { ListSource } from '$lib/core/ask/question';
import { isOfResult } from '$lib/core/ask/resultLists';
import type { Database } from './database';
import { findList } from './lists';
import { findReading } from './readings';

/** The reading that another list is taken from: the one named, or its current one; null: none there. */
export async function readingOfSource(
  db: Database,
  { list, reading }: ListSource,
): Promise<number | null> {
  if (reading !== undefined) return (await findReading(db, reading)) ? reading : null;
  if (list === undefined) return null;
  return (await findList(db, list))?.current_reading ?? null;
}

/** The readings behind a bench's other lists, by their names; a list that is gone is left out. */
export async function readingsOfLists(
  db: Database,
  lists: Readonly<Record<string, ListSource>>,
): Promise<Record<string, number>> {
  const out: Record<string, number> = {};
  for (const [name, source] of Object.entries(lists)) {
    if (isOfResult(source)) continue;
    const reading = await readingOfSource(db, source);
    if (reading !== null) out[name] = reading;
  }
  return out;
}

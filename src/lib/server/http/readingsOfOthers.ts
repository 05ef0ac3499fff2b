import { BadAsk } from '$lib/core/errors';
import { isOfResult } from '$lib/core/ask/resultLists';
import type { Ask } from '$lib/core/ask/ask';
import type { Database } from '../storage/database';
import { readingOfSource } from '../storage/otherReadings';

/** Bytes that an ask may have. */
export const ASK_LIMIT = 4 * 1024 * 1024;

/** The readings behind the ask's other lists. @throws BadAsk */
export async function readingsOfOthers(db: Database, ask: Ask): Promise<Record<string, number>> {
  const out: Record<string, number> = {};
  const faults = [];
  for (const [name, source] of Object.entries(ask.lists)) {
    const path = `lists.${name}`;
    if (isOfResult(source)) continue;
    if (source.file !== undefined)
      faults.push({
        path: `${path}.file`,
        message: 'The server opens no files.',
        remedy: 'Name a stored list by its number (list).',
      });
    else if (source.reading !== undefined || source.list !== undefined) {
      const reading = await readingOfSource(db, source);
      if (reading !== null) out[name] = reading;
      else if (source.reading !== undefined)
        faults.push(missing(`${path}.reading`, 'reading', source.reading));
      else faults.push(missing(`${path}.list`, 'list', source.list ?? 0));
    } else
      faults.push({
        path,
        message: 'This names no list.',
        remedy: 'Give the number of a stored list (list).',
      });
  }
  if (faults.length) throw new BadAsk(faults);
  return out;
}

const missing = (path: string, what: string, id: number) => ({
  path,
  message: `There is no ${what} ${id}.`,
  remedy: `The shelf, and GET /api/lists, name those there are.`,
});

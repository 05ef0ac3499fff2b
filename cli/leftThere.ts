import { AskRefused, TallyRefused } from '$lib/core/errors';
import type { Ask } from '$lib/core/ask/ask';
import type { AskResult } from '$lib/core/ask/result';
import type { Table } from '$lib/core/table/table';
import { answerLeftThere, leftThere } from '$lib/server/databases/leftThere';
import { sqliteSource, sourceOf } from '$lib/server/databases/sourceOf';
import type { DatabaseSource } from '$lib/server/databases/reading';
import { asFailed, askedOf, connectionIn, connectionNamed, isSqlite } from './database';
import { Misused } from './exit';
import { begunWith, headOfFile, listName, type ReadAs } from './input';
import { note } from './output';

/**
 * Answers an ask about a database that groups its own records, of which none is brought here.
 * @returns null where the data is no database
 * @throws BadAsk, Failed, and Misused where the ask needs the records one by one
 */
export async function reckonLeftThere(
  data: string,
  as: ReadAs,
  ask: Ask,
  others: ReadonlyMap<string, Table>,
): Promise<AskResult | null> {
  const named = connectionIn(data);
  if (named === null && !isSqlite(headOfFile(data))) return null;
  const connection = named === null ? null : connectionNamed(named);
  const from = {
    form: connection?.kind ?? ('sqlite' as const),
    ...(named !== null && { connection: named }),
  };
  try {
    const source: DatabaseSource = connection ? sourceOf(connection) : sqliteSource(data);
    const asked = askedOf(as.database, as.recipe?.source, await source.tables());
    const list = await leftThere(
      listName(data),
      source,
      asked,
      from,
      (file) => begunWith(file, as).recipe,
    );
    note(
      `${list.name}: its records stay in the database, which groups them; what it does not declare of its columns was seen in the first 20,000.`,
    );
    try {
      return await answerLeftThere(list, ask, others);
    } catch (error) {
      if (!(error instanceof AskRefused || error instanceof TallyRefused)) throw error;
      const why = error instanceof AskRefused ? error.why : error.message;
      throw new Misused(
        `The list cannot be left in its database: ${why.replace(/\.$/, '')}. Leave --in-parts out.`,
      );
    }
  } catch (error) {
    throw asFailed(error);
  }
}

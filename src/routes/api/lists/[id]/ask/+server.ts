import { BadAsk } from '$lib/core/errors';
import { Bytes } from '$lib/core/table/bytes';
import { isOfResult } from '$lib/core/ask/resultLists';
import { readAsk } from '$lib/core/ask/badAsk';
import type { Ask } from '$lib/core/ask/ask';
import { application } from '$lib/server/application';
import { answering, idOf, jsonOf, notFound } from '$lib/server/http/problem';
import { dialectAsked, fileResponse, formAsked } from '$lib/server/http/forms';
import { freshen, freshenNamed } from '$lib/server/derived/freshen';
import { databasePath, type Database } from '$lib/server/storage/database';
import { findList } from '$lib/server/storage/lists';
import { readingOfSource } from '$lib/server/storage/otherReadings';
import { findReading } from '$lib/server/storage/readings';
import type { RequestHandler } from './$types';

const ASK_LIMIT = 4 * 1024 * 1024;

/** Answers an ask about a stored list, in the form that `?as=` or the Accept header names; JSON otherwise. */
export const POST: RequestHandler = ({ params, request, url }) =>
  answering(async () => {
    const { config, db, pool } = application();
    await freshen(application(), idOf(params.id));
    const list = await findList(db, idOf(params.id));
    if (!list) return notFound('list');
    const named = url.searchParams.get('reading');
    const reading = named === null ? list.current_reading : idOf(named);
    if (reading === null || (await findReading(db, reading))?.listId !== list.id)
      return notFound('reading');
    const ask = readAsk(await jsonOf(request, ASK_LIMIT));
    await freshenNamed(application(), ask.lists);
    const as = formAsked(request, url) ?? 'json';
    const dialect = dialectAsked(url);
    const written = Bytes.parse(
      await pool.perform({
        task: 'answer',
        database: databasePath(config.dataFolder),
        reading,
        ask,
        others: await readingsOfOthers(db, ask),
        as,
        dialect,
        limitMs: config.askMs,
        limitBytes: config.answerBytes,
      }),
    );
    return fileResponse(written, as, 'tallies', dialect);
  });

/** The readings behind the ask's other lists. @throws BadAsk */
async function readingsOfOthers(db: Database, ask: Ask): Promise<Record<string, number>> {
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

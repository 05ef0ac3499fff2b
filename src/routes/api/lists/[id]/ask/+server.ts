import { Bytes } from '$lib/core/table/bytes';
import { readAsk } from '$lib/core/ask/badAsk';
import { application } from '$lib/server/application';
import { answering, idOf, jsonOf, notFound } from '$lib/server/http/problem';
import { dialectAsked, fileResponse, formAsked } from '$lib/server/http/forms';
import { freshen, freshenNamed } from '$lib/server/derived/freshen';
import { databasePath } from '$lib/server/storage/database';
import { findList } from '$lib/server/storage/lists';
import { ASK_LIMIT, readingsOfOthers } from '$lib/server/http/readingsOfOthers';
import { findReading } from '$lib/server/storage/readings';
import type { RequestHandler } from './$types';

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

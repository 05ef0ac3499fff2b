import { z } from 'zod';
import { readAsk } from '$lib/core/ask/badAsk';
import { AskedOf } from '$lib/core/read/decode/source';
import { Bytes } from '$lib/core/table/bytes';
import { application } from '$lib/server/application';
import { BadInput } from '$lib/server/errors';
import { freshenNamed } from '$lib/server/derived/freshen';
import { dialectAsked, fileResponse, formAsked } from '$lib/server/http/forms';
import { answering, jsonOf, notFound } from '$lib/server/http/problem';
import { ASK_LIMIT, readingsOfOthers } from '$lib/server/http/readingsOfOthers';
import { databasePath } from '$lib/server/storage/database';
import type { RequestHandler } from './$types';

const Body = z.strictObject({
  table: z.string().optional(),
  query: z.string().optional(),
  ask: z.unknown(),
});

/** Answers an ask about a table or a query of a database, which groups its records itself: none is brought here. */
export const POST: RequestHandler = ({ params, request, url }) =>
  answering(async () => {
    const { config, db, pool, databases } = application();
    const connection = databases.find(params.name);
    if (!connection) return notFound('connection');
    const body = Body.safeParse(await jsonOf(request, ASK_LIMIT));
    const { ask: document, ...what } = body.success ? body.data : { ask: null };
    const asked = AskedOf.safeParse(what);
    if (!asked.success)
      throw new BadInput(
        'Give the name of a table as “table”, or a SELECT as “query”, and an “ask”.',
      );
    const ask = readAsk(document);
    await freshenNamed(application(), ask.lists);
    const as = formAsked(request, url) ?? 'json';
    const dialect = dialectAsked(url);
    const written = Bytes.parse(
      await pool.perform({
        task: 'answerLeft',
        database: databasePath(config.dataFolder),
        script: databases.reads.script,
        connection,
        name: params.name,
        asked: asked.data,
        ask,
        others: await readingsOfOthers(db, ask),
        as,
        dialect,
        limitBytes: config.answerBytes,
      }),
    );
    return fileResponse(written, as, 'tallies', dialect);
  });

import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { Ask } from '$lib/core/ask/ask';
import { application } from '$lib/server/application';
import { freshen } from '$lib/server/derived/freshen';
import { answering, bodyOf, idOf, notFound } from '$lib/server/http/problem';
import { databasePath } from '$lib/server/storage/database';
import { findList } from '$lib/server/storage/lists';
import type { RequestHandler } from './$types';

const Given = z.strictObject({ wish: z.string().trim().min(1, 'The wish is empty.').max(1000) });
const Readings = z.array(
  z.object({
    sentence: z.string(),
    narrowed: z.array(z.string()),
    notUnderstood: z.array(z.string()),
    read: z.array(z.object({ typed: z.string(), as: z.string() })),
    taken: z.array(z.object({ typed: z.string(), takenFor: z.string() })),
    ask: Ask,
  }),
);

/** What a wish about a list may mean, the likeliest first: each as a sentence, with the ask that it would be. */
export const POST: RequestHandler = ({ params, request }) =>
  answering(async () => {
    const { config, db, pool } = application();
    const id = idOf(params.id);
    const { wish } = await bodyOf(request, Given);
    await freshen(application(), id);
    const list = await findList(db, id);
    if (!list || list.current_reading === null) return notFound('list');
    const readings = await pool.perform({
      task: 'wish',
      database: databasePath(config.dataFolder),
      reading: list.current_reading,
      wish,
      limitMs: config.askMs,
    });
    return json({ readings: Readings.parse(readings) });
  });

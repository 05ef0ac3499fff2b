import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { application } from '$lib/server/application';
import { answering, bodyOf, idOf, notFound } from '$lib/server/http/problem';
import { freshen } from '$lib/server/derived/freshen';
import { databasePath } from '$lib/server/storage/database';
import { findList } from '$lib/server/storage/lists';
import { readingsOf } from '$lib/server/storage/readings';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ params }) =>
  answering(async () => {
    const app = application();
    const list = idOf(params.id);
    await freshen(app, list);
    return (await findList(app.db, list)) ? json(await readingsOf(app.db, list)) : notFound('list');
  });

const Moved = z.object({ lost: z.int() });
const Current = z.strictObject({ reading: z.int() });

/** Makes one of the list's readings the current one: brings an earlier one back. */
export const PUT: RequestHandler = ({ params, request }) =>
  answering(async () => {
    const { config, db, thread } = application();
    const list = idOf(params.id);
    const { reading } = await bodyOf(request, Current);
    if (!(await readingsOf(db, list)).some((r) => r.id === reading))
      return notFound('reading of this list');
    const { lost } = Moved.parse(
      await thread.perform({
        task: 'move',
        database: databasePath(config.dataFolder),
        limitBytes: config.storageBytes,
        listId: list,
        reading,
      }),
    );
    return json({ reading, lost });
  });

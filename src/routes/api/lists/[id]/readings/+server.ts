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

const TakenOut = z.object({ reading: z.int(), lost: z.int() });
const Without = z.strictObject({
  /** The current reading. */
  reading: z.int(),
  /** The place of a file among its parts, from 0. */
  without: z.int().min(0),
});

/** Makes a reading without one of the files that the current one is put together of. */
export const POST: RequestHandler = ({ params, request }) =>
  answering(async () => {
    const { config, db, thread } = application();
    const list = idOf(params.id);
    const { reading, without } = await bodyOf(request, Without);
    if (!(await findList(db, list))) return notFound('list');
    const made = await thread.perform({
      task: 'takeOut',
      database: databasePath(config.dataFolder),
      limitBytes: config.storageBytes,
      listId: list,
      reading,
      part: without,
    });
    return json(TakenOut.parse(made), { status: 201 });
  });

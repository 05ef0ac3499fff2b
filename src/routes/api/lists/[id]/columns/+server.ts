import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { ColumnChange } from '$lib/core/read/redescribe';
import { application } from '$lib/server/application';
import { answering, bodyOf, idOf, notFound, problem } from '$lib/server/http/problem';
import { databasePath } from '$lib/server/storage/database';
import { findOrigin } from '$lib/server/storage/madeLists';
import { findList } from '$lib/server/storage/lists';
import type { RequestHandler } from './$types';

const Made = z.object({ reading: z.int(), lost: z.int() });
const Told = z.strictObject({
  /** The current reading. */
  reading: z.int(),
  columns: z.array(ColumnChange).min(1).max(1000),
});

/** Tells columns of a list otherwise (their names, their units, years), in a reading of the same cells. */
export const PATCH: RequestHandler = ({ params, request }) =>
  answering(async () => {
    const { config, db, thread } = application();
    const list = idOf(params.id);
    const { reading, columns } = await bodyOf(request, Told);
    if (!(await findList(db, list))) return notFound('list');
    if (await findOrigin(db, list))
      return problem(
        422,
        'Cannot be done',
        'This list is made of another: tell the columns of that one otherwise.',
      );
    const made = await thread.perform({
      task: 'redescribe',
      database: databasePath(config.dataFolder),
      limitBytes: config.storageBytes,
      listId: list,
      reading,
      changes: columns,
    });
    return json(Made.parse(made));
  });

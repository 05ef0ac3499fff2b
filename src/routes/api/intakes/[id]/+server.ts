import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { Doubt } from '$lib/core/read/doubts';
import { Recipe } from '$lib/core/read/recipe';
import { application } from '$lib/server/application';
import { answering, bodyOf, notFound, problem } from '$lib/server/http/problem';
import { Accepted, findAccepted } from '$lib/server/storage/acceptedIntakes';
import { findOrigin } from '$lib/server/storage/madeLists';
import { databasePath } from '$lib/server/storage/database';
import { findList } from '$lib/server/storage/lists';
import type { RequestHandler } from './$types';

const Given = z.strictObject({
  /** The list this refreshes; null makes a new one. */
  list: z.int().nullable(),
  /** The list's reading that the records are added to; left out: they are all of the list from now on. */
  addTo: z.int().nullable().default(null),
  name: z.string().trim().min(1, 'The list needs a name.').max(200),
  fileName: z.string().max(500),
  records: z.int().min(0),
  chunks: z.int().min(1).max(100_000),
  recipe: Recipe,
  doubts: z.array(Doubt).max(5000),
  /** Numbers of the records to set aside, from 1. */
  setAside: z.array(z.int().min(1)).max(1_000_000),
  /** Whether what the file states as its grand total is kept as known totals of the first bench. */
  stated: z.boolean().default(false),
});

const MADE_OF_ANOTHER =
  'This list is made of another and takes no file. Refresh the one that it comes from.';

/**
 * Accepts an intake: its chunks become a reading in one transaction, or nothing happens. Accepted
 * again (the answer was lost, or two clicks), it is answered with the list and reading it became.
 */
export const POST: RequestHandler = ({ params, request }) =>
  answering(async () => {
    const { config, db, incoming, thread } = application();
    const given = await bodyOf(request, Given);
    const already = await findAccepted(db, params.id);
    if (already) return json(already, { status: 201 });
    if (given.list !== null && (await findOrigin(db, given.list)))
      return problem(422, 'Cannot be done', MADE_OF_ANOTHER);
    if (given.addTo !== null && given.list === null)
      return problem(422, 'Cannot be done', 'Records are added to a list: `list` must name it.');
    const chunkFiles = incoming.files(params.id, given.chunks);
    if (!chunkFiles) return notFound('intake');
    if (given.list !== null && !(await findList(db, given.list))) return notFound('list');
    const store = async (): Promise<Accepted> =>
      Accepted.parse(
        await thread.perform({
          task: 'store',
          intake: params.id,
          database: databasePath(config.dataFolder),
          limitBytes: config.storageBytes,
          chunkFiles,
          listId: given.list,
          addTo: given.addTo,
          listName: given.name,
          fileName: given.fileName,
          records: given.records,
          recipe: given.recipe,
          doubts: given.doubts,
          setAside: given.setAside,
          stated: given.stated,
        }),
      );
    const stored = await incoming.accept(params.id, store, (answer) => Accepted.parse(answer));
    return json(stored, { status: 201 });
  });

export const DELETE: RequestHandler = ({ params }) =>
  answering(async () => {
    const { incoming } = application();
    if (!incoming.has(params.id)) return problem(404, 'Not found', 'There is no such intake.');
    incoming.drop(params.id);
    return new Response(null, { status: 204 });
  });

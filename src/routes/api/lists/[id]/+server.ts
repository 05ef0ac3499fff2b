import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { application } from '$lib/server/application';
import { answering, bodyOf, idOf, notFound } from '$lib/server/http/problem';
import { deleteList, renameList } from '$lib/server/storage/lists';
import type { RequestHandler } from './$types';

const Rename = z.strictObject({
  name: z.string().trim().min(1, 'The list needs a name.').max(200),
});

export const PATCH: RequestHandler = ({ params, request }) =>
  answering(async () => {
    const { name } = await bodyOf(request, Rename);
    const { numUpdatedRows } = await renameList(application().db, idOf(params.id), name);
    return numUpdatedRows ? json({ name }) : notFound('list');
  });

export const DELETE: RequestHandler = ({ params }) =>
  answering(async () => {
    const { numDeletedRows } = await deleteList(application().db, idOf(params.id));
    return numDeletedRows ? new Response(null, { status: 204 }) : notFound('list');
  });

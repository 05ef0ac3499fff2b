import { json } from '@sveltejs/kit';
import { application } from '$lib/server/application';
import { answering, idOf, notFound } from '$lib/server/http/problem';
import { keepState } from '$lib/server/storage/benches';
import type { RequestHandler } from './$types';

/** Keeps the bench's present state, so that a link to it always opens. */
export const POST: RequestHandler = ({ params }) =>
  answering(async () => {
    const revision = await keepState(application().db, idOf(params.id));
    return revision === undefined ? notFound('bench') : json({ revision }, { status: 201 });
  });

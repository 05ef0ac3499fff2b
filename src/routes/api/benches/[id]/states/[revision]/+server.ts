import { json } from '@sveltejs/kit';
import { application } from '$lib/server/application';
import { answering, idOf, notFound } from '$lib/server/http/problem';
import { findState } from '$lib/server/storage/benches';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ params }) =>
  answering(async () => {
    const state = await findState(application().db, idOf(params.id), idOf(params.revision));
    return state ? json(state.doc) : notFound('state of this bench');
  });

import { json } from '@sveltejs/kit';
import { application } from '$lib/server/application';
import { answering, notFound } from '$lib/server/http/problem';
import type { RequestHandler } from './$types';

/** How a reading of a database stands, and why it broke off where it did. */
export const GET: RequestHandler = ({ params }) =>
  answering(async () => {
    const found = application().databases.reads.find(params.id);
    return found ? json(found) : notFound('reading of a database');
  });

/** Lets one go that nobody took up; one under way ends with its request. */
export const DELETE: RequestHandler = ({ params }) =>
  answering(async () => {
    const { reads } = application().databases;
    if (!reads.find(params.id)) return notFound('reading of a database');
    await reads.stop(params.id);
    return new Response(null, { status: 204 });
  });

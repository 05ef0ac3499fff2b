import { application } from '$lib/server/application';
import { answering, notFound } from '$lib/server/http/problem';
import type { RequestHandler } from './$types';

/** Ends a reading of a database, at the database too. */
export const DELETE: RequestHandler = ({ params }) =>
  answering(async () => {
    const { reads } = application().databases;
    if (!reads.has(params.id)) return notFound('reading of a database');
    reads.drop(params.id);
    return new Response(null, { status: 204 });
  });

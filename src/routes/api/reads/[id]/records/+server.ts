import { application } from '$lib/server/application';
import { answering, notFound } from '$lib/server/http/problem';
import type { RequestHandler } from './$types';

/** The records of a reading that was begun, once, as they come from the database. */
export const GET: RequestHandler = ({ params }) =>
  answering(async () => {
    const text = application().databases.reads.take(params.id);
    if (!text) return notFound('reading of a database');
    return new Response(text, {
      headers: {
        'content-type': 'text/csv; charset=utf-8; header=present',
        'cache-control': 'no-store',
      },
    });
  });

import { application } from '$lib/server/application';
import { answering, idOf, notFound } from '$lib/server/http/problem';
import type { RequestHandler } from './$types';

/** Some records of a reading that was begun: each part once, in their order; nothing behind the last. */
export const GET: RequestHandler = ({ params }) =>
  answering(async () => {
    const { reads } = application().databases;
    if (!reads.has(params.id)) return notFound('reading of a database');
    const bytes = await reads.part(params.id, idOf(params.n));
    return bytes === null
      ? new Response(null, { status: 204 })
      : new Response(new Uint8Array(bytes), {
          headers: {
            'content-type': 'application/vnd.apache.arrow.stream',
            'cache-control': 'no-store',
          },
        });
  });

import { application } from '$lib/server/application';
import { answering, idOf, notFound } from '$lib/server/http/problem';
import { findChunk } from '$lib/server/storage/readings';
import type { RequestHandler } from './$types';

/** A stretch of a reading as an Arrow IPC stream. A reading never changes, so it may be cached. */
export const GET: RequestHandler = ({ params }) =>
  answering(async () => {
    const data = await findChunk(application().db, idOf(params.id), idOf(params.n));
    if (!data) return notFound('chunk');
    return new Response(new Uint8Array(data), {
      headers: {
        'content-type': 'application/vnd.apache.arrow.stream',
        'cache-control': 'private, max-age=86400, immutable',
      },
    });
  });

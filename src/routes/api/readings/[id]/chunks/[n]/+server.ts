import { application } from '$lib/server/application';
import { answering, idOf, notFound } from '$lib/server/http/problem';
import { findChunk, stampOf } from '$lib/server/storage/readings';
import type { RequestHandler } from './$types';

/**
 * A stretch of a reading as an Arrow IPC stream. Asked for by the reading's stamp it never changes, so it may be
 * kept; by its number alone it may be another's once a copy of the data folder was put back.
 */
export const GET: RequestHandler = ({ params, url }) =>
  answering(async () => {
    const { db } = application();
    const reading = idOf(params.id);
    const stamp = url.searchParams.get('stamp');
    if (stamp !== null && (await stampOf(db, reading)) !== stamp) return notFound('reading');
    const data = await findChunk(db, reading, idOf(params.n));
    if (!data) return notFound('chunk');
    return new Response(new Uint8Array(data), {
      headers: {
        'content-type': 'application/vnd.apache.arrow.stream',
        'cache-control': stamp === null ? 'no-store' : 'private, max-age=86400, immutable',
      },
    });
  });

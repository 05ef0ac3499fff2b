import { BadInput } from '$lib/server/errors';
import { application } from '$lib/server/application';
import { answering, bytesOf, idOf, notFound } from '$lib/server/http/problem';
import type { RequestHandler } from './$types';

export const PUT: RequestHandler = ({ params, request }) =>
  answering(async () => {
    const { config, incoming } = application();
    if (!incoming.has(params.id)) return notFound('intake');
    const data = await bytesOf(request, config.uploadBytes * 2);
    if (data.length === 0)
      throw new BadInput(
        'The chunk is empty. Send it with the content type application/vnd.apache.arrow.stream.',
      );
    return (await incoming.put(params.id, idOf(params.n), data))
      ? new Response(null, { status: 204 })
      : notFound('intake');
  });

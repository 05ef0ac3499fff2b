import { json } from '@sveltejs/kit';
import { AskedOf } from '$lib/core/read/decode/source';
import { application } from '$lib/server/application';
import { answering, bodyOf, notFound } from '$lib/server/http/problem';
import type { RequestHandler } from './$types';

/** Begins to read a table or a query: its columns come at once, its records when they are asked for. */
export const POST: RequestHandler = ({ params, request }) =>
  answering(async () => {
    const { databases } = application();
    const asked = await bodyOf(request, AskedOf);
    const connection = databases.find(params.name);
    if (!connection) return notFound('connection');
    return json(await databases.reads.begin(connection, asked), { status: 201 });
  });

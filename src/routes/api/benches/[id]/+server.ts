import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { AnyBench } from '$lib/core/bench/upgrade';
import { application } from '$lib/server/application';
import { answering, bodyOf, idOf, notFound } from '$lib/server/http/problem';
import { deleteBench, findBench, renameBench, saveBench } from '$lib/server/storage/benches';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ params }) =>
  answering(async () => {
    const bench = await findBench(application().db, idOf(params.id));
    return bench ? json(bench) : notFound('bench');
  });

const Save = z.strictObject({ follows: z.int().min(0), doc: AnyBench });

/** Saves the document as the revision behind `follows`; 409 with the newest state when that is not the newest. */
export const PUT: RequestHandler = ({ params, request }) =>
  answering(async () => {
    const { follows, doc } = await bodyOf(request, Save);
    const bench = await saveBench(application().db, idOf(params.id), follows, doc);
    return bench ? json({ revision: bench.revision, savedAt: bench.savedAt }) : notFound('bench');
  });

const Rename = z.strictObject({
  name: z.string().trim().min(1, 'The bench needs a name.').max(120),
});

export const PATCH: RequestHandler = ({ params, request }) =>
  answering(async () => {
    const { name } = await bodyOf(request, Rename);
    const { numUpdatedRows } = await renameBench(application().db, idOf(params.id), name);
    return numUpdatedRows ? json({ name }) : notFound('bench');
  });

export const DELETE: RequestHandler = ({ params }) =>
  answering(async () => {
    const { numDeletedRows } = await deleteBench(application().db, idOf(params.id));
    return numDeletedRows ? new Response(null, { status: 204 }) : notFound('bench');
  });

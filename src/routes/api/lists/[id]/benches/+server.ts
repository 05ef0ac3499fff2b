import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { AnyBench } from '$lib/core/bench/upgrade';
import { application } from '$lib/server/application';
import { answering, bodyOf, idOf, notFound } from '$lib/server/http/problem';
import { addBench } from '$lib/server/storage/benches';
import { findList } from '$lib/server/storage/lists';
import type { RequestHandler } from './$types';

const NewBench = z.object({
  name: z.string().trim().min(1, 'The bench needs a name.').max(120),
  doc: AnyBench,
});

export const POST: RequestHandler = ({ params, request }) =>
  answering(async () => {
    const { db } = application();
    const { name, doc } = await bodyOf(request, NewBench);
    const list = await findList(db, idOf(params.id));
    return list
      ? json({ id: await addBench(db, list.id, name, doc) }, { status: 201 })
      : notFound('list');
  });

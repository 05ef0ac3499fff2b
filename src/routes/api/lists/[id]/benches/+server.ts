import { BadInput } from '$lib/server/errors';
import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { readAsk } from '$lib/core/ask/badAsk';
import { benchOf } from '$lib/core/bench/benchOf';
import type { Bench } from '$lib/core/bench/document';
import { readBenchFile } from '$lib/core/bench/benchFile';
import { application } from '$lib/server/application';
import { answering, bodyOf, idOf, notFound } from '$lib/server/http/problem';
import { addBench } from '$lib/server/storage/benches';
import type { Database } from '$lib/server/storage/database';
import { findList } from '$lib/server/storage/lists';
import { readingsOf } from '$lib/server/storage/readings';
import type { RequestHandler } from './$types';

/** A bench whole, or the ask that it shall answer. */
const NewBench = z.strictObject({
  name: z.string().trim().min(1, 'The bench needs a name.').max(120),
  doc: z.unknown().optional(),
  ask: z.unknown().optional(),
});

/** A bench on a reading of the list: one saved elsewhere names a reading that is not its own. */
async function onReadingOf(
  db: Database,
  list: number,
  current: number,
  doc: Bench,
): Promise<Bench> {
  const own = (await readingsOf(db, list)).some(({ id }) => id === doc.reading);
  return own ? doc : { ...doc, reading: current };
}

export const POST: RequestHandler = ({ params, request }) =>
  answering(async () => {
    const { db } = application();
    const { name, doc, ask } = await bodyOf(request, NewBench);
    if ((doc === undefined) === (ask === undefined))
      throw new BadInput('Give a bench as “doc”, or the ask that it shall answer as “ask”.');
    const list = await findList(db, idOf(params.id));
    if (!list?.current_reading) return notFound('list');
    const made =
      doc === undefined
        ? benchOf(readAsk(ask), list.current_reading)
        : await onReadingOf(db, list.id, list.current_reading, readBenchFile(doc).doc);
    return json({ id: await addBench(db, list.id, name, made) }, { status: 201 });
  });

import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { Replies } from '$lib/engine/protocol';
import { application } from '$lib/server/application';
import { answering, idOf, notFound } from '$lib/server/http/problem';
import { findBench } from '$lib/server/storage/benches';
import { databasePath } from '$lib/server/storage/database';
import type { RequestHandler } from './$types';

/** The saved bench reckoned on the server: as JSON, or with `?as=csv` the ledger as a file. */
export const GET: RequestHandler = ({ params, url }) =>
  answering(async () => {
    const { config, db, thread } = application();
    const bench = await findBench(db, idOf(params.id));
    if (!bench) return notFound('bench');
    const csv = url.searchParams.get('as') === 'csv';
    const full = url.searchParams.get('values') !== 'shown';
    const answers = z.array(z.unknown()).parse(
      await thread.perform({
        task: 'ask',
        database: databasePath(config.dataFolder),
        reading: bench.doc.reading,
        doc: bench.doc,
        requests: csv ? [{ do: 'file', what: 'shown', full }] : [],
      }),
    );
    if (!csv) return json(Replies.reckon.parse(answers[0]));
    return new Response(Replies.file.parse(answers[1]).text, {
      headers: {
        'content-type': 'text/csv; charset=utf-8',
        'content-disposition': 'attachment; filename="ledger.csv"',
      },
    });
  });

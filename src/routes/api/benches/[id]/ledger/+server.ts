import { json } from '@sveltejs/kit';
import { Replies } from '$lib/engine/replies';
import { Bytes } from '$lib/core/table/bytes';
import { application } from '$lib/server/application';
import { dialectAsked, fileResponse } from '$lib/server/http/forms';
import { answering, idOf, notFound } from '$lib/server/http/problem';
import { freshBench } from '$lib/server/derived/freshen';
import { readingsOfLists } from '$lib/server/storage/otherReadings';
import { databasePath } from '$lib/server/storage/database';
import type { RequestHandler } from './$types';

/** What counts, and the ledger's heads and footing. */
const Overview = Replies.resolve.extend(Replies.ledger.shape).extend({ footing: Replies.footing });

/** The saved bench computed on the server: as JSON, or with `?as=csv` the ledger as a file. */
export const GET: RequestHandler = ({ params, url }) =>
  answering(async () => {
    const { config, db, pool } = application();
    const bench = await freshBench(application(), idOf(params.id));
    if (!bench) return notFound('bench');
    const csv = url.searchParams.get('as') === 'csv';
    const dialect = dialectAsked(url);
    const answer = await pool.perform({
      task: 'ledger',
      database: databasePath(config.dataFolder),
      doc: bench.doc,
      others: await readingsOfLists(db, bench.doc.lists),
      csv,
      dialect,
    });
    if (!csv) return json(Overview.parse(answer));
    return fileResponse(Bytes.parse(answer), 'csv', 'ledger', dialect);
  });

import { json } from '@sveltejs/kit';
import { Replies } from '$lib/engine/replies';
import { encoded } from '$lib/core/write/dialect';
import { application } from '$lib/server/application';
import { dialectAsked, fileResponse } from '$lib/server/http/forms';
import { answering, idOf, notFound } from '$lib/server/http/problem';
import { freshBench } from '$lib/server/made/freshen';
import { readingsOfLists } from '$lib/server/storage/otherReadings';
import { databasePath } from '$lib/server/storage/database';
import type { RequestHandler } from './$types';

/** What counts, and the ledger's heads and footing. */
const Overview = Replies.stand.extend(Replies.ledger.shape).extend({ footing: Replies.footing });

/** The saved bench computed on the server: as JSON, or with `?as=csv` the ledger as a file. */
export const GET: RequestHandler = ({ params, url }) =>
  answering(async () => {
    const { config, db, pool } = application();
    const bench = await freshBench(application(), idOf(params.id));
    if (!bench) return notFound('bench');
    const csv = url.searchParams.get('as') === 'csv';
    const dialect = dialectAsked(url);
    const full = url.searchParams.get('values') !== 'shown';
    const answer = await pool.perform({
      task: 'ledger',
      database: databasePath(config.dataFolder),
      doc: bench.doc,
      others: await readingsOfLists(db, bench.doc.lists),
      csv: csv ? (full ? 'full' : 'shown') : '',
      dialect,
    });
    if (!csv) return json(Overview.parse(answer));
    const { text } = Replies.file.parse(answer);
    return fileResponse(encoded(text, dialect.encoding), 'csv', 'ledger', dialect);
  });

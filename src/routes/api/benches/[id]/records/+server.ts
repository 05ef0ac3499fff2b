import { Bytes } from '$lib/core/table/bytes';
import { RECORD_FORMS } from '$lib/core/write/tableFile';
import { application } from '$lib/server/application';
import { BadInput } from '$lib/server/errors';
import { dialectAsked, fileResponse, formAsked } from '$lib/server/http/forms';
import { answering, idOf, notFound } from '$lib/server/http/problem';
import { freshBench } from '$lib/server/derived/freshen';
import { databasePath } from '$lib/server/storage/database';
import { readingsOfLists } from '$lib/server/storage/otherReadings';
import type { RequestHandler } from './$types';

/** The counted records of a stored bench, corrected and prepared; delimited text unless asked otherwise. */
export const GET: RequestHandler = ({ params, request, url }) =>
  answering(async () => {
    const { config, db, pool } = application();
    const bench = await freshBench(application(), idOf(params.id));
    if (!bench) return notFound('bench');
    const asked = formAsked(request, url) ?? 'csv';
    const dialect = dialectAsked(url);
    const form = RECORD_FORMS.find((name) => name === asked);
    if (!form) throw new BadInput(`Records are given as one of ${RECORD_FORMS.join(', ')}.`);
    const written = await pool.perform({
      task: 'file',
      database: databasePath(config.dataFolder),
      doc: bench.doc,
      others: await readingsOfLists(db, bench.doc.lists),
      what: { of: 'records', form, dialect },
    });
    return fileResponse(Bytes.parse(written), form, 'records', dialect);
  });

import { json } from '@sveltejs/kit';
import { showDay } from '$lib/core/table/format';
import { Report } from '$lib/engine/report';
import { application } from '$lib/server/application';
import { answering, idOf, notFound } from '$lib/server/http/problem';
import { freshBench } from '$lib/server/made/freshen';
import { databasePath } from '$lib/server/storage/database';
import { readingsOfLists } from '$lib/server/storage/otherReadings';
import { findReading } from '$lib/server/storage/readings';
import { reportDocument } from '$lib/ui/report/document';
import type { RequestHandler } from './$types';

/** The report of a stored bench: one web page, or with `?as=json` its words and figures. */
export const GET: RequestHandler = ({ params, url }) =>
  answering(async () => {
    const { config, db, pool } = application();
    const bench = await freshBench(application(), idOf(params.id));
    const reading = bench && (await findReading(db, bench.doc.reading));
    if (!bench || !reading) return notFound('bench');
    const report = Report.parse(
      await pool.perform({
        task: 'report',
        database: databasePath(config.dataFolder),
        doc: bench.doc,
        others: await readingsOfLists(db, bench.doc.lists),
        facts: { list: reading.listName, read: showDay(reading.readAt), made: showDay(new Date()) },
      }),
    );
    if (url.searchParams.get('as') === 'json') return json(report);
    return new Response(await reportDocument(report, bench.doc.report), {
      headers: {
        'content-type': 'text/html; charset=utf-8',
        // Nothing of it runs, wherever it is opened.
        'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'; img-src data:",
      },
    });
  });

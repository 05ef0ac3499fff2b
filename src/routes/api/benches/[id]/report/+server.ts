import { json } from '@sveltejs/kit';
import { Bytes } from '$lib/core/table/bytes';
import { showDay } from '$lib/core/table/format';
import { Report } from '$lib/engine/report';
import { application } from '$lib/server/application';
import { dialectAsked, fileResponse, formAsked } from '$lib/server/http/forms';
import { answering, idOf, notFound } from '$lib/server/http/problem';
import { freshBench } from '$lib/server/derived/freshen';
import { databasePath } from '$lib/server/storage/database';
import { readingsOfLists } from '$lib/server/storage/otherReadings';
import { findReading } from '$lib/server/storage/readings';
import { reportDocument } from '$lib/ui/report/document';
import type { RequestHandler } from './$types';

/** The report of a stored bench: one web page, its words and figures as JSON, or its tallies in another form. */
export const GET: RequestHandler = ({ params, request, url }) =>
  answering(async () => {
    const { config, db, pool } = application();
    const bench = await freshBench(application(), idOf(params.id));
    const reading = bench && (await findReading(db, bench.doc.reading));
    if (!bench || !reading) return notFound('bench');
    const form = formAsked(request, url) ?? 'html';
    const others = await readingsOfLists(db, bench.doc.lists);
    const database = databasePath(config.dataFolder);
    if (form !== 'html' && form !== 'json') {
      const dialect = dialectAsked(url);
      const what = { of: 'report' as const, form, dialect };
      const task = { task: 'file' as const, database, doc: bench.doc, others, what };
      return fileResponse(Bytes.parse(await pool.perform(task)), form, 'report', dialect);
    }
    const report = Report.parse(
      await pool.perform({
        task: 'report',
        database,
        doc: bench.doc,
        others,
        facts: { list: reading.listName, read: showDay(reading.readAt), made: showDay(new Date()) },
      }),
    );
    if (form === 'json') return json(report);
    const page = await reportDocument(report, bench.doc.report);
    return fileResponse(new TextEncoder().encode(page), 'html', 'report');
  });

import { json } from '@sveltejs/kit';
import { application } from '$lib/server/application';
import { answering, notFound } from '$lib/server/http/problem';
import type { RequestHandler } from './$types';

/** The tables and views of a database. */
export const GET: RequestHandler = ({ params }) =>
  answering(async () => {
    const source = application().databases.open(params.name);
    return source ? json({ tables: await source.tables() }) : notFound('connection');
  });

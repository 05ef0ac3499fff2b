import { json } from '@sveltejs/kit';
import { application } from '$lib/server/application';
import { answering, notFound } from '$lib/server/http/problem';
import type { RequestHandler } from './$types';

/** The tables and views of a database. */
export const GET: RequestHandler = ({ params }) =>
  answering(async () => {
    const { find, reads } = application().databases;
    const connection = find(params.name);
    return connection ? json({ tables: await reads.tables(connection) }) : notFound('connection');
  });

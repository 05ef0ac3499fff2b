import { json } from '@sveltejs/kit';
import { application } from '$lib/server/application';
import { answering, idOf, notFound } from '$lib/server/http/problem';
import { findReading } from '$lib/server/storage/readings';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = ({ params }) =>
  answering(async () => {
    const facts = await findReading(application().db, idOf(params.id));
    return facts ? json(facts) : notFound('reading');
  });

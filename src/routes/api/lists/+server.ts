import { json } from '@sveltejs/kit';
import { application } from '$lib/server/application';
import { answering } from '$lib/server/http/problem';
import { shelf } from '$lib/server/storage/lists';
import type { RequestHandler } from './$types';

/** The lists of the shelf with their benches. */
export const GET: RequestHandler = () =>
  answering(async () => json({ lists: await shelf(application().db) }));

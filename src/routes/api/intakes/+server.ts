import { json } from '@sveltejs/kit';
import { application } from '$lib/server/application';
import { answering } from '$lib/server/http/problem';
import type { RequestHandler } from './$types';

/** Begins an intake: columns are sent to it in chunks, then accepted or dropped. */
export const POST: RequestHandler = () =>
  answering(async () => json({ id: application().incoming.begin() }, { status: 201 }));

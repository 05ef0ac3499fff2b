import { json } from '@sveltejs/kit';
import { application } from '$lib/server/application';
import { answering } from '$lib/server/http/problem';
import type { RequestHandler } from './$types';

/** The databases that are kept under names; nothing of how they are reached. */
export const GET: RequestHandler = () =>
  answering(async () => json(application().databases.names()));

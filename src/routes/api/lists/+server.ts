import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { Making } from '$lib/core/bench/origin';
import { application } from '$lib/server/application';
import { answering, bodyOf, notFound } from '$lib/server/http/problem';
import { makeOf } from '$lib/server/derived/freshen';
import { shelf } from '$lib/server/storage/lists';
import type { RequestHandler } from './$types';

/** The lists of the shelf with their benches. */
export const GET: RequestHandler = () =>
  answering(async () => json({ lists: await shelf(application().db) }));

/** A list made of a bench: of its records, or of the rows of a tally. */
const NewList = z.strictObject({
  name: z.string().trim().min(1, 'The list needs a name.').max(200),
  bench: z.int().min(1),
  make: Making,
  /** Kept as it is today; otherwise it follows the bench. */
  frozen: z.boolean().default(false),
});

/** Puts a list on the shelf that is made of a bench. */
export const POST: RequestHandler = ({ request }) =>
  answering(async () => {
    const { name, bench, make, frozen } = await bodyOf(request, NewList);
    const day = frozen ? new Date().toISOString().slice(0, 10) : null;
    const made = await makeOf(application(), name, { bench, make, frozen: day });
    return made ? json(made, { status: 201 }) : notFound('bench');
  });

import { json } from '@sveltejs/kit';
import { openApi } from '$lib/server/http/openapi/document';
import type { RequestHandler } from './$types';

/** What this interface is, for programs: an OpenAPI 3.1 document. */
export const GET: RequestHandler = () => json(openApi());

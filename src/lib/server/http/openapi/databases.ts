import { OUT_FORMS } from '$lib/core/write/forms';
import {
  answer,
  arrow,
  asForm,
  DIALECT,
  files,
  having,
  inPath,
  jsonBody,
  ok,
  operation,
  ref,
  type Paths,
} from './shapes';

/** Databases that the server keeps under names, and readings of them. */
export const DATABASES: Paths = {
  '/api/connections': {
    get: operation(
      'The databases that the server keeps under names',
      {
        200: ok('Their names and kinds', {
          type: 'array',
          items: having({ name: 'string', kind: 'string' }),
        }),
      },
      [422],
    ),
  },
  '/api/connections/{name}/tables': {
    get: operation(
      'The tables and views of a database',
      { 200: ok('Their names', having({ tables: 'array' })) },
      [404, 422],
    ),
  },
  '/api/connections/{name}/reads': {
    post: operation(
      'Begins to read a table or what a query comes to, in a transaction that only reads',
      { 201: ok('Its id and its columns', having({ id: 'string', columns: 'array' })) },
      [400, 404, 413, 422],
      {
        requestBody: jsonBody({
          description: '`{ table }` or `{ query }`',
          type: 'object',
          properties: { table: { type: 'string' }, query: { type: 'string' } },
        }),
      },
    ),
  },
  '/api/connections/{name}/ask': {
    post: operation(
      'Answers an ask about a table or a query that stays in its database: the database groups its records, none is brought here',
      {
        200: {
          description: 'The results, in the form that `as` or the Accept header names',
          content: files(OUT_FORMS, { json: ref('Result') }),
        },
      },
      [400, 404, 413, 422],
      {
        parameters: [inPath('name'), asForm(OUT_FORMS, 'json'), ...DIALECT],
        requestBody: jsonBody({
          description: '`{ table, ask }` or `{ query, ask }`; the ask as for a stored list',
          type: 'object',
          properties: {
            table: { type: 'string' },
            query: { type: 'string' },
            ask: { type: 'object' },
          },
        }),
      },
    ),
  },
  '/api/reads/{id}': {
    delete: operation(
      'Ends a reading of a database, at the database too',
      { 204: answer('Ended') },
      [404],
    ),
  },
  '/api/reads/{id}/chunks/{n}': {
    get: operation(
      'Up to 65,536 records of a reading that was begun; each part once, in their order',
      {
        200: answer('An Arrow IPC stream', 'application/vnd.apache.arrow.stream', arrow),
        204: answer('There are no more'),
      },
      [400, 404, 413, 422],
    ),
  },
};

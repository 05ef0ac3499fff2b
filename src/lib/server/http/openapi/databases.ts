import { answer, csv, having, jsonBody, ok, operation, type Paths } from './shapes';

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
  '/api/reads/{id}': {
    get: operation(
      'How a reading of a database stands, and why it broke off where it did',
      {
        200: ok(
          '`state` is waiting, reading, whole, failed or stopped',
          having({ state: 'string', message: 'string', bytes: 'integer' }),
        ),
      },
      [404],
    ),
    delete: operation('Lets a reading go that nobody took up', { 204: answer('Let go') }, [404]),
  },
  '/api/reads/{id}/records': {
    get: operation(
      'The records of a reading that was begun, once, as they come; cut off where it breaks off',
      { 200: answer('Delimited text (RFC 4180) with a line of heads', 'text/csv', csv) },
      [404],
    ),
  },
};

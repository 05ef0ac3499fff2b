import { jsonBody, answer, ok, having, operation, arrow, type Paths } from './shapes';

/** Files on their way in. */
export const INTAKES: Paths = {
  '/api/intakes': {
    post: operation('Begins an intake', { 201: ok('Its id', having({ id: 'string' })) }, []),
  },
  '/api/intakes/{id}': {
    post: operation(
      'Accepts an intake: stores its chunks as a reading, all or nothing',
      {
        201: ok(
          'The list, the reading, its bench where it is new, and what benches could not take along',
          having({ listId: 'integer', reading: 'integer', bench: 'any', lost: 'integer' }),
        ),
      },
      [400, 404, 413, 422, 507],
      {
        requestBody: jsonBody({ type: 'object' }),
      },
    ),
    delete: operation('Drops an intake', { 204: answer('Dropped') }, [404]),
  },
  '/api/intakes/{id}/chunks/{n}': {
    put: operation(
      'Sends a chunk of typed columns',
      { 204: answer('Kept') },
      [400, 404, 413, 507],
      {
        requestBody: {
          required: true,
          content: { 'application/vnd.apache.arrow.stream': { schema: arrow } },
        },
      },
    ),
  },
};

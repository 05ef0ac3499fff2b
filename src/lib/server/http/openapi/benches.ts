import { OUT_FORMS } from '$lib/core/write/forms';
import { RECORD_FORMS } from '$lib/core/write/tableFile';
import {
  jsonBody,
  answer,
  ok,
  having,
  operation,
  inPath,
  inQuery,
  asForm,
  DIALECT,
  files,
  doc,
  csv,
  type Paths,
} from './shapes';

/** Benches and what they come to. */
export const BENCHES: Paths = {
  '/api/benches/{id}': {
    get: operation(
      'A bench with its revision and document',
      {
        200: ok(
          'The bench',
          having({
            id: 'integer',
            name: 'string',
            revision: 'integer',
            savedAt: 'string',
            doc: 'object',
          }),
        ),
      },
      [400, 404],
    ),
    put: operation(
      'Saves a bench as its next revision',
      { 200: ok('The revision', having({ revision: 'integer', savedAt: 'string' })) },
      [400, 404, 409, 413, 507],
      {
        requestBody: jsonBody({
          type: 'object',
          required: ['follows', 'doc'],
          properties: { follows: { type: 'integer' }, doc },
        }),
      },
    ),
    patch: operation(
      'Renames a bench',
      { 200: ok('Its new name', having({ name: 'string' })) },
      [400, 404, 507],
      {
        requestBody: jsonBody({
          type: 'object',
          required: ['name'],
          properties: { name: { type: 'string' } },
        }),
      },
    ),
    delete: operation('Deletes a bench', { 204: answer('Deleted') }, [400, 404]),
  },
  '/api/benches/{id}/ledger': {
    get: operation(
      'The saved bench computed on the server',
      {
        200: {
          description: 'What counts, heads and footing; the ledger as delimited text with `as=csv`',
          content: {
            'application/json': { schema: { type: 'object' } },
            'text/csv': { schema: csv },
          },
        },
      },
      [400, 404, 422],
      {
        parameters: [
          inPath('id'),
          inQuery('as', { enum: ['json', 'csv'] }, 'Form of the answer'),
          inQuery('values', { enum: ['full', 'shown'] }, 'Figures in full, or as shown'),
          ...DIALECT,
        ],
      },
    ),
  },
  '/api/benches/{id}/report': {
    get: operation(
      'The report of a saved bench: one web page without script or outside parts',
      {
        200: {
          description:
            'The page; its words and figures with `as=json`; its tallies in any other form',
          content: files(OUT_FORMS, { json: { type: 'object' } }),
        },
      },
      [400, 404, 422],
      {
        parameters: [inPath('id'), asForm(OUT_FORMS, 'html'), ...DIALECT],
      },
    ),
  },
  '/api/benches/{id}/records': {
    get: operation(
      'The counted records of a saved bench, corrected and prepared',
      {
        200: {
          description: 'The records, in the form that `as` or the Accept header names',
          content: files(RECORD_FORMS, {}),
        },
      },
      [400, 404, 422],
      {
        parameters: [inPath('id'), asForm(RECORD_FORMS, 'csv'), ...DIALECT],
      },
    ),
  },
  '/api/benches/{id}/states': {
    post: operation(
      'Keeps the present state of a bench for a link',
      { 201: ok('Its revision', having({ revision: 'integer' })) },
      [400, 404, 507],
    ),
  },
  '/api/benches/{id}/states/{revision}': {
    get: operation('A bench as it was at a revision', { 200: ok('The document') }, [400, 404]),
  },
};

import { OUT_FORMS } from '$lib/core/write/forms';
import {
  ref,
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
  arrow,
  type Paths,
} from './shapes';

/** Lists and their readings. */
export const LISTS: Paths = {
  '/api/lists': {
    get: operation(
      'The lists of the shelf with their benches, where they come from and what they feed',
      {
        200: ok('Lists', {
          type: 'object',
          required: ['lists'],
          properties: {
            lists: {
              type: 'array',
              items: having({
                id: 'integer',
                name: 'string',
                records: 'integer',
                readAt: 'string',
                fileName: 'string',
                readings: 'integer',
                benches: 'array',
                origin: 'any',
                feeds: 'array',
              }),
            },
          },
        }),
      },
      [],
    ),
    post: operation(
      'Makes a list of a bench: of its records, stacked or unstacked, or of the rows of a tally',
      {
        201: ok(
          'The new list, its reading and its first bench',
          having({ listId: 'integer', reading: 'integer', bench: 'integer' }),
        ),
      },
      [400, 404, 422, 507],
      {
        requestBody: jsonBody({
          type: 'object',
          required: ['name', 'bench', 'make'],
          properties: {
            name: { type: 'string' },
            bench: { type: 'integer', description: 'The bench it is made of.' },
            make: {
              type: 'object',
              description:
                'What becomes a list: `{ of: "records", records: "all" or "counted", reshape }` or `{ of: "tally", tally, table }`.',
            },
            frozen: {
              type: 'boolean',
              default: false,
              description: 'Kept as it is today; otherwise it follows the bench.',
            },
          },
        }),
      },
    ),
  },
  '/api/lists/{id}': {
    patch: operation(
      'Renames a list',
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
    delete: operation(
      'Deletes a list with its readings and benches',
      { 204: answer('Deleted') },
      [400, 404],
    ),
  },
  '/api/lists/{id}/ask': {
    post: operation(
      'Answers an ask about a list: any number of tallies',
      {
        200: {
          description: 'The results, in the form that `as` or the Accept header names',
          content: files(OUT_FORMS, { json: ref('Result') }),
        },
      },
      [400, 404, 413, 422],
      {
        requestBody: jsonBody(ref('Ask')),
        parameters: [
          inPath('id'),
          asForm(OUT_FORMS, 'json'),
          ...DIALECT,
          inQuery(
            'reading',
            { type: 'integer' },
            'A reading of the list; the current one unless given',
          ),
        ],
      },
    ),
  },
  '/api/lists/{id}/benches': {
    post: operation(
      'Adds a bench',
      { 201: ok('Its number', having({ id: 'integer' })) },
      [400, 404, 422, 507],
      {
        requestBody: jsonBody({
          type: 'object',
          required: ['name'],
          properties: {
            name: { type: 'string' },
            doc,
            ask: { description: 'In place of doc: the ask that the bench shall answer.' },
          },
        }),
      },
    ),
  },
  '/api/lists/{id}/readings': {
    get: operation(
      'The readings of a list, newest first',
      {
        200: ok('Readings', {
          type: 'array',
          items: having({
            id: 'integer',
            number: 'integer',
            file_name: 'string',
            read_at: 'string',
            records: 'integer',
            current: 'boolean',
            parts: 'array',
          }),
        }),
      },
      [400, 404],
    ),
    post: operation(
      'Makes a reading without one of the files that the current one is put together of',
      {
        201: ok('The reading', having({ reading: 'integer', lost: 'integer' })),
      },
      [400, 404, 422, 507],
      {
        requestBody: jsonBody({
          type: 'object',
          required: ['reading', 'without'],
          properties: {
            reading: { type: 'integer', description: 'The current reading.' },
            without: {
              type: 'integer',
              description: 'The place of the file among its parts, from 0.',
            },
          },
        }),
      },
    ),
    put: operation(
      'Makes a reading current and brings the benches to it',
      {
        200: ok('Records lost on the way', having({ reading: 'integer', lost: 'integer' })),
      },
      [400, 404, 422, 507],
      {
        requestBody: jsonBody({
          type: 'object',
          required: ['reading'],
          properties: { reading: { type: 'integer' } },
        }),
      },
    ),
  },
  '/api/lists/{id}/wish': {
    post: operation(
      'What a wish in words may mean, the likeliest first, each with the ask that it would be',
      {
        200: ok(
          'Readings of the wish; words of it that were not understood are named',
          having({ readings: 'array' }),
        ),
      },
      [400, 404, 422],
      {
        requestBody: jsonBody({
          type: 'object',
          required: ['wish'],
          properties: { wish: { type: 'string' } },
        }),
      },
    ),
  },
  '/api/lists/{id}/columns': {
    patch: operation(
      'Tells columns otherwise (names, units, numbers as years), in a reading of the same cells',
      {
        200: ok('The reading', having({ reading: 'integer', lost: 'integer' })),
      },
      [400, 404, 422, 507],
      {
        requestBody: jsonBody({
          type: 'object',
          required: ['reading', 'columns'],
          properties: {
            reading: { type: 'integer', description: 'The current reading.' },
            columns: {
              type: 'array',
              description: 'Each with `id`, and `name`, `unit` or `as: "years"`.',
            },
          },
        }),
      },
    ),
  },
  '/api/readings/{id}': {
    get: operation(
      'What is known of a reading',
      {
        200: ok(
          'Facts, recipe and doubts',
          having({
            id: 'integer',
            listId: 'integer',
            listName: 'string',
            number: 'integer',
            fileName: 'string',
            readAt: 'string',
            records: 'integer',
            chunks: 'integer',
            recipe: 'object',
            doubts: 'array',
            parts: 'array',
            stamp: 'string',
          }),
        ),
      },
      [400, 404],
    ),
  },
  '/api/readings/{id}/chunks/{n}': {
    get: operation(
      '65,536 records of a reading, all columns',
      { 200: answer('An Arrow IPC stream', 'application/vnd.apache.arrow.stream', arrow) },
      [400, 404],
    ),
  },
};

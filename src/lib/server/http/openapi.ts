import { z } from 'zod';
import { schemaOf } from '$lib/core/ask/schemas';
import { Fault } from '$lib/core/tally/fault';
import { DECIMAL_MARKS, DELIMITERS, OUT_ENCODINGS, USUAL_DIALECT } from '$lib/core/write/dialect';
import { FORMS, OUT_FORMS, type OutForm } from '$lib/core/write/forms';
import { RECORD_FORMS } from '$lib/core/write/tableFile';

type Schema = Record<string, unknown>;
type Operation = Record<string, unknown>;

const ref = (name: string): Schema => ({ $ref: `#/components/schemas/${name}` });

const jsonBody = (schema: Schema): Schema => ({
  required: true,
  content: { 'application/json': { schema } },
});

const answer = (description: string, type?: string, schema: Schema = {}): Schema => ({
  description,
  ...(type && { content: { [type]: { schema } } }),
});

const ok = (description: string, schema: Schema = { type: 'object' }): Schema =>
  answer(description, 'application/json', schema);

/** An object that has at least these, each of a JSON type. */
const having = (fields: Record<string, string>): Schema => ({
  type: 'object',
  required: Object.keys(fields),
  properties: Object.fromEntries(
    Object.entries(fields).map(([name, type]) => [name, type === 'any' ? {} : { type }]),
  ),
});

const fault = (description: string): Schema =>
  answer(description, 'application/problem+json', ref('Problem'));

const FAULTS: Record<number, string> = {
  400: 'The address or the body cannot be used.',
  404: 'There is no such thing.',
  409: 'A newer revision was saved meanwhile; the answer holds it.',
  413: 'More was sent than is allowed.',
  422: 'It cannot be done with these data; for an ask, `faults` names everything wrong by its path.',
  507: 'There is no room left to save in. Nothing was changed.',
};

/** An operation whose successes are given; every one may also end in these faults. */
function operation(
  summary: string,
  responses: Record<number, Schema>,
  faults: readonly (keyof typeof FAULTS)[],
  more: Operation = {},
): Operation {
  return {
    summary,
    ...more,
    responses: {
      ...responses,
      ...Object.fromEntries(faults.map((status) => [status, fault(FAULTS[status])])),
    },
  };
}

const inPath = (name: string): Schema => ({
  name,
  in: 'path',
  required: true,
  schema: name === 'id' ? { type: 'string' } : { type: 'integer', minimum: 0 },
});

const inQuery = (name: string, schema: Schema, description: string): Schema => ({
  name,
  in: 'query',
  required: false,
  schema,
  description,
});

/** The form that an answer is asked for in. */
const asForm = (forms: readonly OutForm[], usual: OutForm): Schema =>
  inQuery('as', { enum: [...forms], default: usual }, 'Form of the answer');

/** How delimited text is asked for. */
const DIALECT: readonly Schema[] = [
  inQuery(
    'delimiter',
    { enum: [...DELIMITERS], default: USUAL_DIALECT.delimiter },
    'Between the fields of delimited text',
  ),
  inQuery(
    'decimal',
    { enum: [...DECIMAL_MARKS], default: USUAL_DIALECT.decimal },
    'The decimal mark of its numbers',
  ),
  inQuery(
    'encoding',
    { enum: [...OUT_ENCODINGS], default: USUAL_DIALECT.encoding },
    'Its encoding; `utf-8-marked` begins with the mark of UTF-8',
  ),
];

/** Files in each of several forms. */
const files = (forms: readonly OutForm[], schemas: Partial<Record<OutForm, Schema>>): Schema =>
  Object.fromEntries(
    forms.map((form) => {
      const { media } = FORMS[form];
      const bytes = { type: 'string', contentMediaType: media };
      return [media, { schema: schemas[form] ?? (form === 'json' ? {} : bytes) }];
    }),
  );

const doc = { type: 'object', description: 'A bench document.' };
const csv = { type: 'string' };
const arrow = { type: 'string', contentMediaType: 'application/vnd.apache.arrow.stream' };

/** Every path of the interface; a test compares it with the routes. */
const PATHS: Record<string, Record<string, Operation>> = {
  '/api/openapi.json': {
    get: operation('This document', { 200: ok('OpenAPI 3.1') }, []),
  },
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
          }),
        }),
      },
      [400, 404],
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
      'The saved bench reckoned on the server',
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

/** Path parameters where an operation names none itself. */
function withParameters(
  path: string,
  operations: Record<string, Operation>,
): Record<string, Operation> {
  const names = [...path.matchAll(/\{(\w+)\}/g)].map(([, name]) => name);
  return Object.fromEntries(
    Object.entries(operations).map(([method, op]) => [
      method,
      names.length === 0 || 'parameters' in op ? op : { ...op, parameters: names.map(inPath) },
    ]),
  );
}

/** A JSON Schema as a component: its own definitions become components beside it. */
function component(name: string, schema: Record<string, unknown>): Record<string, unknown> {
  const { $defs = {}, ...rest } = schema;
  delete rest.$schema;
  const moved = (text: string): string =>
    text
      .replaceAll('"#/$defs/', `"#/components/schemas/${name}.`)
      .replaceAll('"$ref":"#"', `"$ref":"#/components/schemas/${name}"`);
  const parse = (value: unknown): unknown => JSON.parse(moved(JSON.stringify(value)));
  return {
    [name]: parse(rest),
    ...Object.fromEntries(
      Object.entries($defs as object).map(([key, value]) => [`${name}.${key}`, parse(value)]),
    ),
  };
}

/** The interface as an OpenAPI 3.1 document. Its schemas are those that documents are checked by. */
export function openApi(): Record<string, unknown> {
  return {
    openapi: '3.1.0',
    info: {
      title: 'Tally Loft',
      version: '1',
      description: 'Record lists, benches and tallies. Faults are problem details (RFC 9457).',
    },
    paths: Object.fromEntries(
      Object.entries(PATHS).map(([path, operations]) => [path, withParameters(path, operations)]),
    ),
    components: {
      schemas: {
        ...component('Ask', schemaOf('ask')),
        ...component('Result', schemaOf('result')),
        Problem: {
          type: 'object',
          required: ['type', 'title', 'status', 'detail'],
          properties: {
            type: { type: 'string' },
            title: { type: 'string' },
            status: { type: 'integer' },
            detail: { type: 'string' },
            faults: { type: 'array', items: z.toJSONSchema(Fault) },
          },
        },
      },
    },
  };
}

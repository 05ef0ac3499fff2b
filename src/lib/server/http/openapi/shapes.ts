import { DECIMAL_MARKS, DELIMITERS, OUT_ENCODINGS, USUAL_DIALECT } from '$lib/core/write/dialect';
import { FORMS, type OutForm } from '$lib/core/write/forms';

/** A part of an OpenAPI 3.1 document. */
export type Schema = Record<string, unknown>;
export type Operation = Record<string, unknown>;

export const ref = (name: string): Schema => ({ $ref: `#/components/schemas/${name}` });

export const jsonBody = (schema: Schema): Schema => ({
  required: true,
  content: { 'application/json': { schema } },
});

export const answer = (description: string, type?: string, schema: Schema = {}): Schema => ({
  description,
  ...(type && { content: { [type]: { schema } } }),
});

export const ok = (description: string, schema: Schema = { type: 'object' }): Schema =>
  answer(description, 'application/json', schema);

/** An object that has at least these, each of a JSON type. */
export const having = (fields: Record<string, string>): Schema => ({
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
export function operation(
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

export const inPath = (name: string): Schema => ({
  name,
  in: 'path',
  required: true,
  schema: name === 'id' || name === 'name' ? { type: 'string' } : { type: 'integer', minimum: 0 },
});

export const inQuery = (name: string, schema: Schema, description: string): Schema => ({
  name,
  in: 'query',
  required: false,
  schema,
  description,
});

/** The form that an answer is asked for in. */
export const asForm = (forms: readonly OutForm[], usual: OutForm): Schema =>
  inQuery('as', { enum: [...forms], default: usual }, 'Form of the answer');

/** How delimited text is asked for. */
export const DIALECT: readonly Schema[] = [
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
export const files = (
  forms: readonly OutForm[],
  schemas: Partial<Record<OutForm, Schema>>,
): Schema =>
  Object.fromEntries(
    forms.map((form) => {
      const { media } = FORMS[form];
      const bytes = { type: 'string', contentMediaType: media };
      return [media, { schema: schemas[form] ?? (form === 'json' ? {} : bytes) }];
    }),
  );

export const doc = { type: 'object', description: 'A bench document.' };
export const csv = { type: 'string' };
export const arrow = { type: 'string', contentMediaType: 'application/vnd.apache.arrow.stream' };

/** Operations of paths, by method. */
export type Paths = Readonly<Record<string, Record<string, Operation>>>;

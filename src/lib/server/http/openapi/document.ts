import { z } from 'zod';
import { schemaOf } from '$lib/core/ask/schemas';
import { Fault } from '$lib/core/tally/spec/fault';
import { BENCHES } from './benches';
import { DATABASES } from './databases';
import { INTAKES } from './intakes';
import { LISTS } from './lists';
import { inPath, ok, operation, type Operation, type Paths } from './shapes';

/** Every path of the interface; a test compares it with the routes. */
const PATHS: Paths = {
  '/api/openapi.json': {
    get: operation('This document', { 200: ok('OpenAPI 3.1') }, []),
  },
  ...LISTS,
  ...INTAKES,
  ...DATABASES,
  ...BENCHES,
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

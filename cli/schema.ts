import { schemaOf, SCHEMAS } from '$lib/core/ask/schemas';
import { Misused } from './exit';
import { write } from './output';

/** Writes a JSON Schema (2020-12) of the ask, the result or the recipe. @throws Misused */
export function schema(which: string, options: { readonly out?: string }): void {
  const name = SCHEMAS.find((n) => n === which);
  if (!name) throw new Misused(`There is no schema “${which}”: take ${SCHEMAS.join(', ')}.`);
  write(`${JSON.stringify(schemaOf(name), null, 2)}\n`, options.out);
}

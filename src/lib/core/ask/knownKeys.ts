import { z } from 'zod';

/**
 * The keys that an object may have at a path of a schema, whichever of several forms it has there:
 * for "did you mean".
 */
export function knownKeys(schema: z.ZodType, path: readonly PropertyKey[]): Set<string> {
  const keys = new Set<string>();
  for (const at of reached([schema], path))
    for (const form of formsOf(at))
      if (form instanceof z.ZodObject) for (const key of Object.keys(form.shape)) keys.add(key);
  return keys;
}

function reached(
  from: readonly z.core.$ZodType[],
  path: readonly PropertyKey[],
): z.core.$ZodType[] {
  return path.reduce<z.core.$ZodType[]>(
    (schemas, part) =>
      schemas.flatMap((schema) => formsOf(schema).flatMap((form) => within(form, part))),
    [...from],
  );
}

/** What lies at a place of one form. */
function within(form: z.core.$ZodType, part: PropertyKey): z.core.$ZodType[] {
  if (form instanceof z.ZodArray) return [form.element];
  if (form instanceof z.ZodRecord) return [form.valueType];
  if (!(form instanceof z.ZodObject)) return [];
  const inner: z.core.$ZodType | undefined = form.shape[String(part)];
  return inner ? [inner] : [];
}

/** A schema as the plain forms behind what wraps them. */
function formsOf(schema: z.core.$ZodType): z.core.$ZodType[] {
  if (schema instanceof z.ZodUnion) return schema.options.flatMap(formsOf);
  if (schema instanceof z.ZodLazy) return formsOf(schema.unwrap());
  if (
    schema instanceof z.ZodOptional ||
    schema instanceof z.ZodNullable ||
    schema instanceof z.ZodDefault
  )
    return formsOf(schema.unwrap());
  if (schema instanceof z.ZodPipe) return [...formsOf(schema.in), ...formsOf(schema.out)];
  return [schema];
}

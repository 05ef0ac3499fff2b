import { z } from 'zod';

/**
 * The keys that an object may have at a path of a schema, for "did you mean". Where an object has one
 * of several forms, that is the one its words choose (`kind`, `test`, `by`, `do`); every form where
 * they choose none.
 * @param document what was written, from the schema's root
 */
export function knownKeys(
  schema: z.ZodType,
  document: unknown,
  path: readonly PropertyKey[],
): Set<string> {
  const keys = new Set<string>();
  let schemas: z.core.$ZodType[] = [schema];
  let value = document;
  for (const part of path) {
    schemas = schemas.flatMap((s) => formsOf(s, value)).flatMap((form) => within(form, part));
    value = memberOf(value, part);
  }
  for (const form of schemas.flatMap((s) => formsOf(s, value)))
    if (form instanceof z.ZodObject) for (const key of Object.keys(form.shape)) keys.add(key);
  return keys;
}

const memberOf = (value: unknown, part: PropertyKey): unknown =>
  typeof value === 'object' && value !== null
    ? Object.entries(value).find(([key]) => key === String(part))?.[1]
    : undefined;

/** What lies at a place of one form. */
function within(form: z.core.$ZodType, part: PropertyKey): z.core.$ZodType[] {
  if (form instanceof z.ZodArray) return [form.element];
  if (form instanceof z.ZodRecord) return [form.valueType];
  if (!(form instanceof z.ZodObject)) return [];
  const inner: z.core.$ZodType | undefined = form.shape[String(part)];
  return inner ? [inner] : [];
}

/** A schema as the plain forms behind what wraps them. */
function formsOf(schema: z.core.$ZodType, value: unknown): z.core.$ZodType[] {
  if (schema instanceof z.ZodUnion) {
    const forms = schema.options.flatMap((option) => formsOf(option, value));
    const chosen = forms.filter((form) => isChosen(form, value));
    return chosen.length ? chosen : forms;
  }
  if (schema instanceof z.ZodLazy) return formsOf(schema.unwrap(), value);
  if (
    schema instanceof z.ZodOptional ||
    schema instanceof z.ZodNullable ||
    schema instanceof z.ZodDefault
  )
    return formsOf(schema.unwrap(), value);
  if (schema instanceof z.ZodPipe)
    return [...formsOf(schema.in, value), ...formsOf(schema.out, value)];
  return [schema];
}

/** Whether an object's words that tell forms apart are those of this one. */
function isChosen(form: z.core.$ZodType, value: unknown): boolean {
  if (!(form instanceof z.ZodObject)) return false;
  const telling = Object.entries(form.shape).filter(
    ([, member]) => member instanceof z.ZodLiteral || member instanceof z.ZodEnum,
  );
  return (
    telling.some(([key]) => memberOf(value, key) !== undefined) &&
    telling.every(([key, member]) => {
      const word = memberOf(value, key);
      return word === undefined || (member instanceof z.ZodType && member.safeParse(word).success);
    })
  );
}

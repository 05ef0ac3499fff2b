import { z } from 'zod';
import { Bytes } from '../core/table/bytes';
import { Formats } from '../core/tally/spec/formats';
import { Dialect } from '../core/write/dialect';
import { OUT_FORMS } from '../core/write/forms';
import { RECORD_FORMS } from '../core/write/tableFile';

/** From the page to the worker that writes files. */
export const ToWriter = z.discriminatedUnion('kind', [
  z.strictObject({
    kind: z.literal('result'),
    /** An answer: see `fromParts`. */
    parts: z.array(Bytes),
    form: z.enum(OUT_FORMS),
    dialect: Dialect,
  }),
  z.strictObject({
    kind: z.literal('records'),
    name: z.string(),
    notes: z.array(z.string()),
    records: z.int(),
    /** Arrow streams of them, one behind the other. */
    parts: z.array(Bytes),
    formats: Formats,
    form: z.enum(RECORD_FORMS),
    dialect: Dialect,
  }),
]);
export type ToWriter = z.infer<typeof ToWriter>;

export const FromWriter = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('told'), share: z.number() }),
  z.strictObject({ kind: z.literal('written'), bytes: Bytes, guarded: z.int() }),
  z.strictObject({ kind: z.literal('refused'), message: z.string() }),
]);
export type FromWriter = z.infer<typeof FromWriter>;

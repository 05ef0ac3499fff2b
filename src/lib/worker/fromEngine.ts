import { z } from 'zod';
import { CODES } from '../core/errors';

/** From the engine's worker to the page. */
export const FromEngine = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('progress'), share: z.number() }),
  /** Something takes long; its share done where that is known. */
  z.strictObject({ kind: z.literal('working'), share: z.number().nullable() }),
  z.strictObject({ kind: z.literal('opened'), records: z.int() }),
  z.strictObject({ kind: z.literal('failed'), message: z.string() }),
  z.strictObject({
    kind: z.literal('answer'),
    id: z.int(),
    ok: z.literal(true),
    value: z.unknown(),
  }),
  z.strictObject({
    kind: z.literal('refusal'),
    id: z.int(),
    ok: z.literal(false),
    /** What was refused, for the page to tell apart. */
    code: z.enum(CODES),
    message: z.string(),
  }),
]);
export type FromEngine = z.infer<typeof FromEngine>;

import { z } from 'zod';
import { CODES } from '../core/errors';

/** From the engine's worker to the page. */
export const FromEngine = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('progress'), share: z.number() }),
  /** Something takes long; its share done where that is known. */
  z.object({ kind: z.literal('working'), share: z.number().nullable() }),
  z.object({ kind: z.literal('opened'), records: z.int() }),
  z.object({ kind: z.literal('failed'), message: z.string() }),
  z.object({ kind: z.literal('answer'), id: z.int(), ok: z.literal(true), value: z.unknown() }),
  z.object({
    kind: z.literal('refusal'),
    id: z.int(),
    ok: z.literal(false),
    /** What was refused, for the page to tell apart. */
    code: z.enum(CODES),
    message: z.string(),
  }),
]);
export type FromEngine = z.infer<typeof FromEngine>;

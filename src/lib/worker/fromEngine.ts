import { z } from 'zod';

/** From the engine's worker to the page. */
export const FromEngine = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('progress'), share: z.number() }),
  z.object({ kind: z.literal('opened'), records: z.int() }),
  z.object({ kind: z.literal('failed'), message: z.string() }),
  z.object({ kind: z.literal('answer'), id: z.int(), ok: z.literal(true), value: z.unknown() }),
  z.object({
    kind: z.literal('refusal'),
    id: z.int(),
    ok: z.literal(false),
    /** The name of the error: `Superseded`, `Engine:stale`. */
    name: z.string(),
    message: z.string(),
  }),
]);
export type FromEngine = z.infer<typeof FromEngine>;

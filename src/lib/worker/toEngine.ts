import { z } from 'zod';
import { Request } from '../engine/request';

/** From the page to the engine's worker. */
export const ToEngine = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('open'), reading: z.int(), base: z.string() }),
  z.object({ kind: z.literal('ask'), id: z.int(), lane: z.string(), request: Request }),
]);
export type ToEngine = z.infer<typeof ToEngine>;

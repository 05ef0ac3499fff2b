import { z } from 'zod';

/** Bytes in a message between a page, a worker or a thread. */
export const Bytes = z.custom<Uint8Array>((value) => value instanceof Uint8Array);

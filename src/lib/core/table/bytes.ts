import { z } from 'zod';

/** What a message hands over instead of copying: the memory of its parts, where it has some. */
export function partsHandedOver(message: unknown): ArrayBuffer[] {
  const held = Parts.safeParse(message);
  if (!held.success) return [];
  const buffers = held.data.parts.map(({ buffer }) => buffer);
  return [...new Set(buffers)].filter((buffer) => buffer instanceof ArrayBuffer);
}

/** Bytes in a message between a page, a worker or a thread. */
export const Bytes = z.custom<Uint8Array>((value) => value instanceof Uint8Array);

const Parts = z.object({ parts: z.array(Bytes) });

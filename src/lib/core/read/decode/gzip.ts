import { IntakeError } from '../../errors';
import { damaged, tooLarge } from './faults';
import { joined } from './joined';

/**
 * Unpacks gzip (RFC 1952), checked by its own sums. What unfolds to more than the limit is refused as it
 * unfolds.
 * @throws IntakeError
 */
export async function gunzip(bytes: Uint8Array, limit: number): Promise<Uint8Array> {
  const stream = new Blob([bytes.slice()]).stream().pipeThrough(new DecompressionStream('gzip'));
  const reader = stream.getReader();
  const parts: Uint8Array[] = [];
  let size = 0;
  try {
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return joined(parts);
      size += value.length;
      if (size > limit) throw tooLarge(limit);
      parts.push(value);
    }
  } catch (error) {
    await reader.cancel().catch(() => undefined);
    throw error instanceof IntakeError ? error : damaged('it is damaged or ends too early');
  }
}

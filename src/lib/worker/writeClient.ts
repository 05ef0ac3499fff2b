import { partsHandedOver } from '../core/table/bytes';
import type { WrittenFile } from '../core/write/written';
import { FromWriter, type ToWriter } from './writeMessages';

/**
 * A file written off the page's thread, by a worker of its own that ends with it.
 * @param signal ends it at once
 * @param told is told what share is written, where that takes a while
 * @throws Error why not
 */
export function written(
  message: ToWriter,
  signal?: AbortSignal,
  told?: (share: number) => void,
): Promise<WrittenFile> {
  const worker = new Worker(new URL('./write.worker.ts', import.meta.url), { type: 'module' });
  return new Promise<WrittenFile>((resolve, reject) => {
    worker.addEventListener('message', (event: MessageEvent<unknown>) => {
      const reply = FromWriter.parse(event.data);
      if (reply.kind === 'told') told?.(reply.share);
      else if (reply.kind === 'written') resolve({ bytes: reply.bytes, guarded: reply.guarded });
      else reject(new Error(reply.message));
    });
    worker.addEventListener('error', () =>
      reject(new Error('Writing was interrupted. Nothing was saved; try again.')),
    );
    signal?.addEventListener('abort', () => reject(new Error('Writing was stopped.')));
    worker.postMessage(message, partsHandedOver(message));
  }).finally(() => worker.terminate());
}

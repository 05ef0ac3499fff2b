import { randomUUID } from 'node:crypto';
import type { AskedOf } from '$lib/core/read/unfold/source';
import { DatabaseFault, TooLarge } from '../errors';
import { log } from '../log';
import type { DatabaseReading, DatabaseSource } from './reading';

/** Readings that may be open at one time: each holds a connection. */
const MOST_OPEN = 4;
/** One that nobody takes up is let go. */
const IDLE_MS = 60_000;
/** Ended readings whose end can still be asked for. */
const MOST_ENDED = 50;

/** How a reading stands: `failed` and `stopped` gave only a part of the records. */
export type ReadState = 'waiting' | 'reading' | 'whole' | 'failed' | 'stopped';

interface Read {
  readonly reading: DatabaseReading;
  state: ReadState;
  message: string;
  bytes: number;
  idle: NodeJS.Timeout | null;
}

/** Readings of databases that are under way: begun, taken up once, and remembered by how they ended. */
export class DatabaseReads {
  readonly #reads = new Map<string, Read>();

  /** @param limit bytes that one of them may give */
  constructor(readonly limit: number) {}

  /** @throws DatabaseFault */
  async begin(
    source: DatabaseSource,
    asked: AskedOf,
  ): Promise<{ id: string; columns: DatabaseReading['columns'] }> {
    if (this.#open >= MOST_OPEN)
      throw new DatabaseFault(
        `${MOST_OPEN} readings of databases are under way. Wait until one has ended, then try again.`,
      );
    const reading = await source.read(asked);
    const id = randomUUID();
    const idle = setTimeout(() => void this.stop(id), IDLE_MS);
    idle.unref();
    this.#reads.set(id, { reading, state: 'waiting', message: '', bytes: 0, idle });
    return { id, columns: reading.columns };
  }

  /** How it stands; null for one that is not known, or not any more. */
  find(id: string): { state: ReadState; message: string; bytes: number } | null {
    const read = this.#reads.get(id);
    return read ? { state: read.state, message: read.message, bytes: read.bytes } : null;
  }

  /** Its text as it comes; null for one that is not known or was taken up before. */
  take(id: string): ReadableStream<Uint8Array> | null {
    const read = this.#reads.get(id);
    if (read?.state !== 'waiting') return null;
    read.state = 'reading';
    if (read.idle) clearTimeout(read.idle);
    const parts = read.reading.text[Symbol.asyncIterator]();
    return new ReadableStream<Uint8Array>({
      pull: async (out) => {
        try {
          const next = await parts.next();
          if (next.done) {
            this.#end(read, 'whole');
            return out.close();
          }
          read.bytes += next.value.length;
          if (read.bytes > this.limit) {
            await parts.return?.();
            throw new TooLarge(this.limit);
          }
          out.enqueue(next.value);
        } catch (error) {
          this.#end(read, 'failed', error);
          out.error(error);
        }
      },
      cancel: async () => {
        this.#end(read, 'stopped');
        await parts.return?.();
      },
    });
  }

  /** Lets one go that nobody took up. */
  async stop(id: string): Promise<void> {
    const read = this.#reads.get(id);
    if (read?.state !== 'waiting') return;
    if (read.idle) clearTimeout(read.idle);
    this.#end(read, 'stopped');
    // A generator that was never begun ends without its last act: its first step is taken.
    const parts = read.reading.text[Symbol.asyncIterator]();
    await parts.next().catch(() => undefined);
    await parts.return?.();
  }

  get #open(): number {
    return [...this.#reads.values()].filter(
      ({ state }) => state === 'waiting' || state === 'reading',
    ).length;
  }

  #end(read: Read, state: ReadState, error?: unknown): void {
    read.state = state;
    if (error instanceof DatabaseFault || error instanceof TooLarge) read.message = error.message;
    else if (error !== undefined) {
      log().error(error, 'a reading of a database failed');
      read.message = 'The reading broke off here; the server’s log says why.';
    }
    const ended = [...this.#reads].filter(
      ([, { state: now }]) => now !== 'waiting' && now !== 'reading',
    );
    for (const [id] of ended.slice(0, Math.max(0, ended.length - MOST_ENDED)))
      this.#reads.delete(id);
  }
}

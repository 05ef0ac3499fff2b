import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import type { AskedOf } from '$lib/core/read/unfold/source';
import { DatabaseFault } from '../errors';
import type { SqliteConnection } from './connections';
import type { DatabaseSource } from './reading';
import { FromSqlite } from './sqliteMessages';

/**
 * A SQLite file on the server, each question in a thread of its own, which ends with it.
 * @param script the thread
 */
export function sqliteSource(connection: SqliteConnection, script: string): DatabaseSource {
  return {
    async tables() {
      const thread = new Asking(connection, null, script);
      try {
        const said = await thread.next();
        return said.kind === 'tables' ? said.tables : [];
      } finally {
        await thread.end();
      }
    },
    async read(asked) {
      const thread = new Asking(connection, asked, script);
      try {
        const said = await thread.next();
        return { columns: said.kind === 'columns' ? said.columns : [], text: textOf(thread) };
      } catch (error) {
        await thread.end();
        throw error;
      }
    },
  };
}

async function* textOf(thread: Asking): AsyncGenerator<Uint8Array> {
  try {
    for (;;) {
      const said = await thread.next(true);
      if (said.kind === 'whole') return;
      if (said.kind === 'text') yield said.bytes;
    }
  } finally {
    await thread.end();
  }
}

class Asking {
  readonly #thread: Worker;
  readonly #limit: NodeJS.Timeout;
  #late = false;

  constructor({ file, seconds }: SqliteConnection, asked: AskedOf | null, script: string) {
    this.#thread = new Worker(script, { workerData: { file, asked } });
    this.#limit = setTimeout(() => {
      this.#late = true;
      void this.#thread.terminate();
    }, seconds * 1000);
  }

  /** What it says next. @param more whether a piece of the text is asked for @throws DatabaseFault */
  async next(more = false): Promise<Exclude<FromSqlite, { kind: 'fault' }>> {
    if (more) this.#thread.postMessage('next');
    const ended = once(this.#thread, 'exit').then((): never => {
      throw new DatabaseFault(
        this.#late
          ? 'This took longer than the connection allows, and was stopped. Ask for less, or raise its “seconds”.'
          : 'The reading was interrupted.',
      );
    });
    // Whichever comes first; the other one is heard by nobody.
    ended.catch(() => undefined);
    const [raw]: unknown[] = await Promise.race([once(this.#thread, 'message'), ended]);
    const said = FromSqlite.parse(raw);
    if (said.kind === 'fault') throw new DatabaseFault(said.message);
    return said;
  }

  async end(): Promise<void> {
    clearTimeout(this.#limit);
    await this.#thread.terminate();
  }
}

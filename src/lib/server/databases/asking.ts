import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import type { AskedOf } from '$lib/core/read/decode/source';
import { DatabaseFault } from '../errors';
import { log } from '../log';
import { FromAsking, type AskTask, type ToAsking } from './askMessages';
import type { Connection } from './connections';
import type { Grouped } from './grouped';

/** What a thread that is told to leave may take to end its question at the database. */
const LEAVE_MS = 3000;

type Said = Exclude<FromAsking, { kind: 'fault' }>;

/** A question to a database in a thread of its own, with the time that its connection allows. */
export class Asking {
  readonly #thread: Worker;
  readonly #limit: NodeJS.Timeout;
  /** Settles when the thread has ended. */
  readonly #ended: Promise<void>;
  readonly #tooLong: string;
  #late = false;

  /**
   * @param script the thread
   * @param asked null: the names of its tables
   * @param grouped in place of the records: their groups
   */
  constructor(script: string, connection: Connection, asked: AskedOf | null, grouped?: Grouped) {
    const task: AskTask = { connection, asked, ...(grouped && { grouped }) };
    this.#thread = new Worker(script, { workerData: task });
    // Heard once for all that is asked of it; a thread that fails is one that has ended.
    this.#thread.on('error', (error) => log().error(error, 'a thread that asks a database failed'));
    this.#ended = new Promise((over) => this.#thread.once('exit', () => over()));
    const { seconds } = connection;
    this.#tooLong = `This took longer than the ${seconds} s that the connection allows, and was stopped. Ask for less, or raise its “seconds”.`;
    this.#limit = setTimeout(() => {
      this.#late = true;
      void this.#thread.terminate();
    }, seconds * 1000);
  }

  /** What it says next. @throws DatabaseFault */
  async next(): Promise<Said> {
    const heard = new AbortController();
    const message = once(this.#thread, 'message', { signal: heard.signal });
    // One that is heard no more rejects, to nobody.
    message.catch(() => undefined);
    const first: unknown[] | void = await Promise.race([message, this.#ended]);
    heard.abort();
    if (!first)
      throw new DatabaseFault(
        this.#late ? this.#tooLong : 'The reading was interrupted. Try again.',
      );
    const said = FromAsking.parse(first[0]);
    if (said.kind !== 'fault') return said;
    if (!said.ours) throw new DatabaseFault(said.message);
    log().error({ why: said.message }, 'a reading of a database failed');
    throw new DatabaseFault('The reading broke off here; the server’s log says why.');
  }

  /** Asks for the next part. @returns null behind the last one @throws DatabaseFault */
  async part(): Promise<Uint8Array | null> {
    this.#tell('next');
    const said = await this.next();
    return said.kind === 'part' ? said.bytes : null;
  }

  /** Ends it, at the database too, whatever it is at. */
  async end(): Promise<void> {
    clearTimeout(this.#limit);
    this.#tell('leave');
    const late = setTimeout(() => void this.#thread.terminate(), LEAVE_MS);
    late.unref();
    await this.#ended;
    clearTimeout(late);
  }

  #tell(message: ToAsking): void {
    this.#thread.postMessage(message);
  }
}

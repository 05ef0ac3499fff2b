import { randomUUID } from 'node:crypto';
import type { DeclaredColumn } from '$lib/core/read/decode/declared';
import type { AskedOf } from '$lib/core/read/decode/source';
import { BadInput, DatabaseFault, TooLarge } from '../errors';
import { Asking } from './asking';
import { askingSource } from './askingSource';
import type { Connection } from './connections';

/** Readings that may be open at one time: each holds a connection. */
const MOST_OPEN = 4;
/** One that nobody asks anything of is let go. */
const IDLE_MS = 60_000;

interface Read {
  readonly asking: Asking;
  next: number;
  bytes: number;
  idle: NodeJS.Timeout | null;
}

/** Readings of databases that are under way: begun, then taken part by part. */
export class DatabaseReads {
  readonly #reads = new Map<string, Read>();

  /**
   * @param script the thread that asks a database
   * @param limit bytes that one reading may give
   */
  constructor(
    readonly script: string,
    readonly limit: number,
  ) {}

  /** @throws DatabaseFault */
  tables(connection: Connection): Promise<string[]> {
    return askingSource(this.script, connection).tables();
  }

  /** @throws DatabaseFault */
  async begin(
    connection: Connection,
    asked: AskedOf,
  ): Promise<{ id: string; columns: readonly DeclaredColumn[] }> {
    if (this.#reads.size >= MOST_OPEN)
      throw new DatabaseFault(
        `${MOST_OPEN} readings of databases are under way. Wait until one has ended, then try again.`,
      );
    const id = randomUUID();
    const asking = new Asking(this.script, connection, asked);
    this.#reads.set(id, { asking, next: 0, bytes: 0, idle: null });
    try {
      const said = await asking.next();
      this.#wait(id);
      return { id, columns: said.kind === 'columns' ? said.columns : [] };
    } catch (error) {
      this.drop(id);
      throw error;
    }
  }

  has(id: string): boolean {
    return this.#reads.has(id);
  }

  /**
   * Part `n`, each once and in their order: an Arrow IPC stream; null behind the last one.
   * @throws BadInput where another part is the next one, DatabaseFault, TooLarge
   */
  async part(id: string, n: number): Promise<Uint8Array | null> {
    const read = this.#reads.get(id);
    if (!read) return null;
    if (n !== read.next) throw new BadInput(`Part ${read.next} is the next one, not ${n}.`);
    read.next++;
    if (read.idle) clearTimeout(read.idle);
    try {
      const bytes = await read.asking.part();
      read.bytes += bytes?.length ?? 0;
      // Typed columns with their dictionaries can be wider than the text they came from.
      if (read.bytes > 2 * this.limit) throw new TooLarge(this.limit);
      if (bytes === null) this.drop(id);
      else this.#wait(id);
      return bytes;
    } catch (error) {
      this.drop(id);
      throw error;
    }
  }

  /** Ends one, at the database too. */
  drop(id: string): void {
    const read = this.#reads.get(id);
    if (!read) return;
    this.#reads.delete(id);
    if (read.idle) clearTimeout(read.idle);
    void read.asking.end();
  }

  #wait(id: string): void {
    const read = this.#reads.get(id);
    if (!read) return;
    read.idle = setTimeout(() => this.drop(id), IDLE_MS);
    read.idle.unref();
  }
}

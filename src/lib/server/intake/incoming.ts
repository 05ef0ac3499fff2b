import { TooLarge } from '../errors';
import { randomUUID } from 'node:crypto';
import { mkdirSync, rmSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import path from 'node:path';

interface Arrival {
  readonly folder: string;
  readonly chunks: Map<number, { file: string; bytes: number }>;
  bytes: number;
}

/** Columns on their way in, kept as files until they are accepted. None outlives the server. */
export class Incoming {
  readonly #arrivals = new Map<string, Arrival>();
  readonly #accepting = new Map<string, Promise<unknown>>();

  constructor(
    readonly folder: string,
    readonly limit: number,
  ) {
    rmSync(folder, { recursive: true, force: true });
    mkdirSync(folder, { recursive: true, mode: 0o700 });
  }

  begin(): string {
    const id = randomUUID();
    const folder = path.join(this.folder, id);
    mkdirSync(folder);
    this.#arrivals.set(id, { folder, chunks: new Map(), bytes: 0 });
    return id;
  }

  has(id: string): boolean {
    return this.#arrivals.has(id);
  }

  /** @throws TooLarge */
  async put(id: string, n: number, data: Uint8Array): Promise<boolean> {
    const arrival = this.#arrivals.get(id);
    if (!arrival) return false;
    const bytes = arrival.bytes - (arrival.chunks.get(n)?.bytes ?? 0) + data.length;
    // Typed columns with their dictionaries can be wider than the text they came from.
    if (bytes > this.limit * 2) throw new TooLarge(this.limit);
    const file = path.join(arrival.folder, `${n}.arrow`);
    await writeFile(file, data);
    arrival.chunks.set(n, { file, bytes: data.length });
    arrival.bytes = bytes;
    return true;
  }

  /** The files of chunks 0..count-1, or null where one is missing. */
  files(id: string, count: number): string[] | null {
    const arrival = this.#arrivals.get(id);
    if (!arrival || arrival.chunks.size !== count) return null;
    const files: string[] = [];
    for (let n = 0; n < count; n++) {
      const chunk = arrival.chunks.get(n);
      if (!chunk) return null;
      files.push(chunk.file);
    }
    return files;
  }

  /** Does the work of accepting an arrival; whoever asks for it meanwhile gets the same answer. */
  async accept<T>(id: string, work: () => Promise<T>, parse: (answer: unknown) => T): Promise<T> {
    const running = this.#accepting.get(id);
    if (running) return parse(await running);
    const begun = work();
    this.#accepting.set(id, begun);
    try {
      const answer = await begun;
      this.drop(id);
      return answer;
    } finally {
      this.#accepting.delete(id);
    }
  }

  drop(id: string): void {
    const arrival = this.#arrivals.get(id);
    if (!arrival) return;
    this.#arrivals.delete(id);
    rmSync(arrival.folder, { recursive: true, force: true });
  }
}

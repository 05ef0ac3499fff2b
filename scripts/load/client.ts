import { encodeChunk } from '$lib/core/table/arrowWrite';
import type { ReadFile } from '$lib/worker/intakeSending';
import { z } from 'zod';

const Begun = z.object({ id: z.string() });
const Saved = z.object({ revision: z.int(), doc: z.unknown() });

const JSON_BODY = { 'content-type': 'application/json' };

/** One who uses the server as pages and scripts do; every answer's status is counted. */
export class Client {
  constructor(
    readonly address: string,
    /** What a request came to and how long it took, in ms; 0: no answer at all. */
    readonly told: (what: string, status: number, ms: number) => void,
  ) {}

  async #asked(what: string, path: string, init: RequestInit = {}): Promise<Response | null> {
    const begun = performance.now();
    try {
      const response = await fetch(`${this.address}${path}`, init);
      // Read to its end: an answer that breaks off is none.
      const whole = new Response(await response.arrayBuffer(), { status: okStatus(response) });
      this.told(what, response.status, performance.now() - begun);
      return whole;
    } catch {
      this.told(what, 0, performance.now() - begun);
      return null;
    }
  }

  readonly page = (path: string): Promise<unknown> => this.#asked('page', path);

  readonly ask = (what: string, list: number, ask: unknown): Promise<Response | null> =>
    this.#asked(what, `/api/lists/${list}/ask`, {
      method: 'POST',
      headers: JSON_BODY,
      body: JSON.stringify(ask),
    });

  /** Saves a bench as it is; another may have been quicker. */
  async save(bench: number): Promise<void> {
    const found = await this.#asked('look', `/api/benches/${bench}`);
    const saved = Saved.safeParse(await found?.json().catch(() => null));
    if (!saved.success) return;
    await this.#asked('save', `/api/benches/${bench}`, {
      method: 'PUT',
      headers: JSON_BODY,
      body: JSON.stringify({ follows: saved.data.revision, doc: saved.data.doc }),
    });
  }

  /** Sends a file's columns and has them kept. @param list the list it refreshes; null: a new one */
  async bring(
    what: string,
    { table, recipe }: ReadFile,
    list: number | null,
    chunk: Uint8Array = encodeChunk(table, 0),
  ): Promise<void> {
    const begun = Begun.safeParse(
      await (await this.#asked(what, '/api/intakes', { method: 'POST' }))?.json(),
    );
    if (!begun.success) return;
    const at = `/api/intakes/${begun.data.id}`;
    await this.#asked(what, `${at}/chunks/0`, {
      method: 'PUT',
      headers: { 'content-type': 'application/vnd.apache.arrow.stream' },
      body: new Uint8Array(chunk),
    });
    await this.#asked(what, at, {
      method: 'POST',
      headers: JSON_BODY,
      body: JSON.stringify({
        list,
        name: 'Sailings',
        fileName: 'sailings.csv',
        records: table.length,
        chunks: 1,
        recipe,
        doubts: [],
        setAside: [],
      }),
    });
  }
}

/** A response made anew may not have a status without a body. */
const okStatus = ({ status }: Response): number =>
  status === 204 || status === 304 ? 200 : status;

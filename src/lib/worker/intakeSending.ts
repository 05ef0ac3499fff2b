import { z } from 'zod';
import type { Doubt } from '../core/read/doubts';
import type { Recipe } from '../core/read/recipe';
import { chunkCount, encodeChunk } from '../core/table/arrowWrite';
import type { Table } from '../core/table/table';

/** A file read to its end, about to be kept. */
export interface ReadFile {
  readonly recipe: Recipe;
  readonly table: Table;
  readonly doubts: readonly Doubt[];
}

/** What is kept, and as what. */
export interface Naming {
  /** Where the server is. */
  readonly base: string;
  /** The list it refreshes; null makes a new one. */
  readonly list: number | null;
  /** The list's reading that the records are added to; null: they are all of the list. */
  readonly addTo: number | null;
  readonly name: string;
  readonly fileName: string;
  readonly setAside: readonly number[];
  /** Whether what the file states as its grand total is kept as known totals. */
  readonly stated: boolean;
}

const Begun = z.object({ id: z.string() });
const Stored = z.object({
  listId: z.int(),
  reading: z.int(),
  bench: z.int().nullable(),
  lost: z.int(),
});
export type Stored = z.infer<typeof Stored>;
const Problem = z.object({ detail: z.string() });

/** What the server said instead of doing it. */
class Refused extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message);
  }
}

/** @throws Refused, or an Error where the server does not answer */
async function asked(url: string, init: RequestInit): Promise<unknown> {
  let response: Response;
  try {
    response = await fetch(url, init);
  } catch {
    throw new Error(
      'The server does not answer. What was read is still here: accept it again, and it is kept once.',
    );
  }
  const body: unknown = response.status === 204 ? null : await response.json().catch(() => null);
  if (response.ok) return body;
  const problem = Problem.safeParse(body);
  throw new Refused(
    response.status,
    problem.success ? problem.data.detail : `The server refused it (${response.status}).`,
  );
}

/**
 * Sends what was read, chunk by chunk, then asks for it to be kept: all of it or nothing. Accepted
 * again after an answer was lost, it names the same intake, so that the server keeps it once.
 */
export class IntakeSender {
  /** What was sent whole, and the intake it was sent to. */
  #sent: { readonly file: ReadFile; readonly id: string } | null = null;

  async keep(file: ReadFile, naming: Naming, progress: (share: number) => void): Promise<Stored> {
    if (this.#sent?.file === file)
      try {
        return await this.#finish(this.#sent.id, file, naming);
      } catch (error) {
        // A server that started anew has forgotten what was not kept.
        if (!(error instanceof Refused && error.status === 404)) throw error;
      }
    const { id } = Begun.parse(await asked(`${naming.base}/api/intakes`, { method: 'POST' }));
    const chunks = chunkCount(file.table);
    for (let n = 0; n < chunks; n++) {
      await asked(`${naming.base}/api/intakes/${id}/chunks/${n}`, {
        method: 'PUT',
        body: new Uint8Array(encodeChunk(file.table, n)),
        headers: { 'content-type': 'application/vnd.apache.arrow.stream' },
      });
      progress((n + 1) / (chunks + 1));
    }
    this.#sent = { file, id };
    return this.#finish(id, file, naming);
  }

  async #finish(id: string, { recipe, table, doubts }: ReadFile, naming: Naming): Promise<Stored> {
    const { base, ...named } = naming;
    const stored = await asked(`${base}/api/intakes/${id}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({
        ...named,
        records: table.length,
        chunks: chunkCount(table),
        recipe,
        doubts,
      }),
    });
    return Stored.parse(stored);
  }
}

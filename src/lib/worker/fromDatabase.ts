import { z } from 'zod';
import { IntakeError } from '../core/errors';
import { HEAD_BYTES } from '../core/read/decode';
import { OpenedFile } from '../core/read/opened';
import { DeclaredColumn } from '../core/read/unfold/declared';
import type { AskedOf, DatabaseForm } from '../core/read/unfold/source';

/** A database of the server, and what of it is read. */
export interface DatabaseWanted {
  /** Where the server is. */
  readonly base: string;
  readonly connection: string;
  readonly form: DatabaseForm;
  readonly asked: AskedOf;
}

const Begun = z.object({ id: z.string(), columns: z.array(DeclaredColumn) });
const Standing = z.object({ state: z.string(), message: z.string() });
const Problem = z.object({ detail: z.string() });

const NO_ANSWER = 'The server does not answer. Start it again, and read once more.';

/**
 * Reads a table or a query through the server, to its end.
 * @param told bytes that have come so far; false ends the reading, at the database too
 * @returns null where it was ended
 * @throws IntakeError with what the database said
 */
export async function readDatabase(
  { base, connection, form, asked }: DatabaseWanted,
  limit: number,
  told: (bytes: number) => boolean,
): Promise<{ opened: OpenedFile; text: Blob } | null> {
  const { id, columns } = Begun.parse(
    await answered(`${base}/api/connections/${encodeURIComponent(connection)}/reads`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(asked),
    }),
  );
  const text = await textOf(`${base}/api/reads/${id}`, limit, told);
  if (!text) return null;
  const head = new Uint8Array(await text.slice(0, HEAD_BYTES).arrayBuffer());
  const opened = OpenedFile.unfolded({
    source: { form, connection, ...('table' in asked ? { part: asked.table } : asked) },
    choices: { members: [], parts: [] },
    doubts: [],
    content: { kind: 'declared', head, whole: text.size <= HEAD_BYTES, columns },
  });
  return { opened, text };
}

async function textOf(
  read: string,
  limit: number,
  told: (bytes: number) => boolean,
): Promise<Blob | null> {
  const response = await fetch(`${read}/records`).catch(() => null);
  const reader = response?.ok ? response.body?.getReader() : undefined;
  if (!reader) throw new IntakeError('form', NO_ANSWER);
  const parts: Uint8Array<ArrayBuffer>[] = [];
  let bytes = 0;
  try {
    for (;;) {
      const { done, value } = await reader.read();
      if (done) return new Blob(parts);
      parts.push(value);
      bytes += value.length;
      if (bytes > limit || !told(bytes)) {
        await reader.cancel();
        if (bytes <= limit) return null;
        throw new IntakeError('tooLarge', 'This is more than one list may take. Ask for less.');
      }
    }
  } catch (error) {
    if (error instanceof IntakeError) throw error;
    // A text that breaks off does not say why; the server remembers.
    const { message } = Standing.parse(await answered(read));
    throw new IntakeError('form', message || NO_ANSWER);
  }
}

/** @throws IntakeError with the words of a refusal */
async function answered(url: string, init?: RequestInit): Promise<unknown> {
  const response = await fetch(url, init).catch(() => null);
  if (!response) throw new IntakeError('form', NO_ANSWER);
  const body: unknown = await response.json().catch(() => null);
  if (response.ok) return body;
  const { data } = Problem.safeParse(body);
  throw new IntakeError('form', data?.detail ?? NO_ANSWER);
}

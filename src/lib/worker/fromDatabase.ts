import { z } from 'zod';
import { IntakeError } from '../core/errors';
import { OpenedFile } from '../core/read/opened';
import { declaredTable, DeclaredColumn } from '../core/read/decode/declared';
import { NO_PARTS, type AskedOf, type DatabaseForm } from '../core/read/decode/source';
import { recordsIn, TableAssembler } from '../core/table/arrowRead';

/** A database of the server, and what of it is read. */
export interface DatabaseWanted {
  /** Where the server is. */
  readonly base: string;
  readonly connection: string;
  readonly form: DatabaseForm;
  readonly asked: AskedOf;
}

const Begun = z.object({ id: z.string(), columns: z.array(DeclaredColumn) });
const Problem = z.object({ detail: z.string() });

const NO_ANSWER = 'The server does not answer. Start it again, and read once more.';

/**
 * Reads a table or a query through the server, to its end.
 * @param told the reading by its id, records and bytes that have come so far; false ends the reading, at the database too
 * @returns null where it was ended
 * @throws IntakeError with what the database said
 */
export async function readDatabase(
  { base, connection, form, asked }: DatabaseWanted,
  told: (read: string, records: number, bytes: number) => boolean,
): Promise<OpenedFile | null> {
  const begun = await sent(`${base}/api/connections/${encodeURIComponent(connection)}/reads`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(asked),
  });
  const { id, columns } = Begun.parse(await begun.json());
  const chunks: Uint8Array[] = [];
  let [records, bytes] = [0, 0];
  told(id, records, bytes);
  for (;;) {
    const response = await sent(`${base}/api/reads/${id}/chunks/${chunks.length}`);
    if (response.status === 204) break;
    const chunk = new Uint8Array(await response.arrayBuffer());
    chunks.push(chunk);
    bytes += chunk.length;
    records += recordsIn(chunk);
    if (!told(id, records, bytes)) {
      await sent(`${base}/api/reads/${id}`, { method: 'DELETE' });
      return null;
    }
  }
  if (records === 0)
    throw new IntakeError('noRecords', 'What was asked of the database has no records.');
  const assembler = new TableAssembler(records);
  for (const chunk of chunks) assembler.push(chunk);
  return OpenedFile.unfolded({
    source: { form, connection, ...('table' in asked ? { part: asked.table } : asked) },
    choices: NO_PARTS,
    doubts: [],
    content: {
      kind: 'typed',
      table: declaredTable(assembler.finish(), columns),
      declared: columns,
    },
  });
}

/** @throws IntakeError with the words of a refusal */
async function sent(url: string, init?: RequestInit): Promise<Response> {
  const response = await fetch(url, init).catch(() => null);
  if (!response) throw new IntakeError('form', NO_ANSWER);
  if (response.ok) return response;
  const { data } = Problem.safeParse(await response.json().catch(() => null));
  throw new IntakeError('form', data?.detail ?? NO_ANSWER);
}

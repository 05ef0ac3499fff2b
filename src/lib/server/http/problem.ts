import { BadInput, StaleRevision, TaskFailed, TooLarge } from '../errors';
import { BadAsk, Trouble, type Code } from '$lib/core/errors';
import { isDeeperThan, MOST_DEEP } from '$lib/core/ask/depth';
import { z } from 'zod';
import type { Fault } from '$lib/core/tally/spec/fault';
import { log } from '../log';

/** A fault as problem details (RFC 9457). */
export function problem(
  status: number,
  title: string,
  detail: string,
  more: Record<string, unknown> = {},
): Response {
  return new Response(JSON.stringify({ type: 'about:blank', title, status, detail, ...more }), {
    status,
    headers: { 'content-type': 'application/problem+json' },
  });
}

/** An ask with everything that is wrong in it, each by its path. */
const badAsk = (faults: readonly Fault[]): Response =>
  problem(
    422,
    'The ask does not fit',
    `${faults.length === 1 ? 'One thing is' : `${faults.length} things are`} wrong in the ask.`,
    { faults },
  );

export const notFound = (what: string): Response =>
  problem(404, 'Not found', `There is no such ${what}. It may have been deleted.`);

const CANNOT = [422, 'Cannot be done'] as const;

/** What is told to whoever asked, by code; the rest is our own fault and is not told. */
const TOLD: Partial<Record<Code, readonly [status: number, title: string]>> = {
  badInput: [400, 'Cannot be used'],
  tooLarge: [413, 'Too large'],
  storageFull: [507, 'No room left'],
  storageGone: [503, 'The database is gone'],
  overLimit: [422, 'Over the limit'],
  badArrow: CANNOT,
  badCondition: CANNOT,
  unknownColumn: CANNOT,
  threadDied: CANNOT,
  tallyRefused: CANNOT,
  listRefused: CANNOT,
  askRefused: CANNOT,
  noPlace: CANNOT,
  noTally: CANNOT,
  tooMuch: CANNOT,
  writeRefused: CANNOT,
  badFile: CANNOT,
  databaseFault: CANNOT,
  badSetting: CANNOT,
};

/** Runs a route and turns what it throws into problem details; nothing of the inside shows. */
export async function answering(work: () => Promise<Response>): Promise<Response> {
  try {
    return await work();
  } catch (error) {
    if (error instanceof z.ZodError)
      return problem(
        400,
        'Cannot be used',
        error.issues.map((i) => `${i.path.join('.') || 'body'}: ${i.message}`).join('; '),
      );
    if (error instanceof StaleRevision)
      return problem(409, 'Saved elsewhere', error.message, {
        revision: error.newest.revision,
        doc: error.newest.doc,
      });
    if (error instanceof BadAsk || (error instanceof TaskFailed && error.code === 'badAsk'))
      return badAsk(error.faults);
    if (error instanceof Trouble) {
      const [status, title] = TOLD[error.code] ?? [];
      if (status) return problem(status, title ?? '', error.message);
    }
    log().error(error, 'a request failed');
    return problem(
      500,
      'Something failed here',
      'The server could not do this. Nothing was changed; try again, and look at its log if it happens twice.',
    );
  }
}

/** The number in a route's address. @throws BadInput */
export function idOf(text: string): number {
  if (!/^\d{1,15}$/.test(text)) throw new BadInput('The address does not name a number.');
  return Number(text);
}

const JSON_LIMIT = 16 * 1024 * 1024;

/** A JSON body within its limit, validated. @throws BadInput, ZodError */
export async function bodyOf<T>(request: Request, schema: z.ZodType<T>): Promise<T> {
  return schema.parse(await jsonOf(request, JSON_LIMIT));
}

/** A JSON body of at most `limit` bytes, not yet validated. @throws BadInput, TooLarge */
export async function jsonOf(request: Request, limit: number): Promise<unknown> {
  const bytes = await bytesOf(request, limit);
  let body: unknown;
  try {
    body = JSON.parse(new TextDecoder().decode(bytes));
  } catch {
    throw new BadInput('The body is not JSON.');
  }
  if (isDeeperThan(body, MOST_DEEP))
    throw new BadInput(`The parts of the body lie more than ${MOST_DEEP} deep in one another.`);
  return body;
}

/** A form of at most `limit` bytes, empty where it was more or is no form. */
export async function formOf(request: Request, limit: number): Promise<FormData> {
  try {
    const body = new Uint8Array(await bytesOf(request, limit));
    const type = request.headers.get('content-type') ?? '';
    return await new Response(body, { headers: { 'content-type': type } }).formData();
  } catch {
    return new FormData();
  }
}

/** A body of at most `limit` bytes. @throws TooLarge */
export async function bytesOf(request: Request, limit: number): Promise<Uint8Array> {
  if (Number(request.headers.get('content-length') ?? 0) > limit) throw new TooLarge(limit);
  const parts: Uint8Array[] = [];
  let size = 0;
  const reader = request.body?.getReader();
  while (reader) {
    const { done, value } = await reader.read();
    if (done) break;
    size += value.length;
    if (size > limit) {
      await reader.cancel();
      throw new TooLarge(limit);
    }
    parts.push(value);
  }
  const out = new Uint8Array(size);
  let at = 0;
  for (const part of parts) {
    out.set(part, at);
    at += part.length;
  }
  return out;
}

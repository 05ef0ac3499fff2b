import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import {
  BadAsk,
  BadBands,
  codeOf,
  CODES,
  EngineError,
  ExpressionError,
  Superseded,
  TallyRefused,
  Trouble,
  UnknownColumn,
} from '$lib/core/errors';
import {
  BadInput,
  OverLimit,
  StaleRevision,
  StorageFull,
  TaskFailed,
  TooLarge,
} from '$lib/server/errors';
import { answering } from '$lib/server/http/problem';
import { setLogLevel } from '$lib/server/log';

setLogLevel('silent');

const Problem = z.object({ status: z.number(), title: z.string(), detail: z.string() });

/** The problem that a route answers when this is thrown in it. */
async function told(error: unknown): Promise<z.infer<typeof Problem>> {
  const response = await answering(() => Promise.reject(error));
  expect(response.headers.get('content-type')).toBe('application/problem+json');
  return Problem.parse(await response.json());
}

describe('errors', () => {
  it('have a code each, and what is not ours is unexpected', () => {
    expect(codeOf(new UnknownColumn('x'))).toBe('unknownColumn');
    expect(codeOf(new BadBands('…'))).toBe('badBands');
    expect(codeOf(new EngineError('stale', '…'))).toBe('stale');
    expect(codeOf(new Superseded())).toBe('superseded');
    expect(codeOf(new TypeError('…'))).toBe('unexpected');
    expect(codeOf('thrown text')).toBe('unexpected');
    expect(new Set(CODES).size).toBe(CODES.length);
  });

  it('say where and what to do', () => {
    expect(new UnknownColumn('Dellay', 'Delay').message).toBe(
      'There is no column “Dellay” in this list. The nearest is “Delay”.',
    );
    const wrong = new ExpressionError('Text cannot be added.', { start: 4, end: 5 }, 'Use ||.');
    expect(wrong.message).toBe('Character 5: Text cannot be added. Use ||.');
    const ask = new BadAsk([{ path: '', message: 'It is empty.', remedy: 'Name a tally.' }]);
    expect(ask.message).toBe('the ask: It is empty. Name a tally.');
  });

  it.each([
    [new BadInput('The body is not JSON.'), 400],
    [new TooLarge(1 << 20), 413],
    [new StorageFull(), 507],
    [new OverLimit('It took too long.'), 422],
    [new TallyRefused('Nothing is counted.'), 422],
    [new TaskFailed('threadDied', 'The work was interrupted.'), 422],
    [new TaskFailed('noPlace', 'There is no such figure.'), 422],
    [new BadAsk([{ path: 'tallies', message: 'None.', remedy: 'Name one.' }]), 422],
    [new TaskFailed('badAsk', 'None.', [{ path: 'tallies', message: 'None.', remedy: '' }]), 422],
    [new StaleRevision({ revision: 7, doc: {} }), 409],
  ])('are told over HTTP by their codes: %s', async (error, status) => {
    const problem = await told(error);
    expect(problem.status).toBe(status);
    if (status !== 422 || codeOf(error) !== 'badAsk')
      expect(problem.detail).toContain(error.message);
  });

  it('nothing of the inside shows where the fault is ours', async () => {
    for (const error of [new Error('secret path'), new Trouble('unexpected', 'secret path')]) {
      const problem = await told(error);
      expect(problem.status).toBe(500);
      expect(problem.detail).not.toContain('secret');
    }
  });
});

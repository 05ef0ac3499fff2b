import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { EngineClient, Refused, type EngineListener } from '$lib/worker/engineClient';
import type { FromEngine } from '$lib/worker/fromEngine';
import { ToEngine } from '$lib/worker/toEngine';

type Told = (event: { data?: unknown }) => void;

/** A worker that does nothing but keep what it was sent. */
class FakeWorker {
  static readonly all: FakeWorker[] = [];
  readonly sent: ToEngine[] = [];
  readonly #told = new Map<string, Told>();
  ended = false;

  constructor() {
    FakeWorker.all.push(this);
  }
  addEventListener(kind: string, told: Told): void {
    this.#told.set(kind, told);
  }
  postMessage(message: unknown): void {
    this.sent.push(ToEngine.parse(message));
  }
  terminate(): void {
    this.ended = true;
  }
  says(message: FromEngine): void {
    this.#told.get('message')?.({ data: message });
  }
  breaks(): void {
    this.#told.get('error')?.({});
  }
}

const heard: string[] = [];
const listener: EngineListener = {
  progress: (share) => void heard.push(`read ${share}`),
  working: (share) => void heard.push(`working ${share}`),
  died: () => void heard.push('died'),
};
const made = (): { client: EngineClient; worker: FakeWorker } => {
  const client = new EngineClient(listener);
  return { client, worker: FakeWorker.all[FakeWorker.all.length - 1] };
};

beforeEach(() => {
  FakeWorker.all.length = 0;
  heard.length = 0;
  vi.stubGlobal('Worker', FakeWorker);
});
afterEach(() => vi.unstubAllGlobals());

const LINE = { line: 4 };

describe('the page’s side of the engine', () => {
  it('opens a reading, and tells how far that is', async () => {
    const { client, worker } = made();
    const opening = client.open(3, '/base');
    expect(worker.sent).toEqual([{ kind: 'open', reading: 3, base: '/base' }]);
    worker.says({ kind: 'progress', share: 0.5 });
    worker.says({ kind: 'opened', records: 12 });
    expect((await opening).records).toBe(12);
    worker.says({ kind: 'working', share: null });
    expect(heard).toEqual(['read 0.5', 'working null']);
  });

  it('says why a reading cannot be opened', async () => {
    const { client, worker } = made();
    const opening = client.open(3, '');
    worker.says({ kind: 'failed', message: 'The list could not be fetched (404).' });
    await expect(opening).rejects.toMatchObject({
      code: 'openFailed',
      message: 'The list could not be fetched (404).',
    });
  });

  it('gives each answer to whoever asked, whatever came first', async () => {
    const { client, worker } = made();
    const first = client.ask('locateRecord', { tally: 't0', record: 1 }, { token: 9 });
    const second = client.ask(
      'locateRecord',
      { tally: 't0', record: 2 },
      { token: 9, lane: 'own' },
    );
    const asked = worker.sent.flatMap((m) => (m.kind === 'ask' ? [m] : []));
    expect(asked.map(({ lane, args }) => [lane, args])).toEqual([
      ['locateRecord', { tally: 't0', record: 1, token: 9 }],
      ['own', { tally: 't0', record: 2, token: 9 }],
    ]);
    worker.says({ kind: 'answer', id: asked[1].id, ok: true, value: { line: 8 } });
    worker.says({ kind: 'answer', id: asked[0].id, ok: true, value: LINE });
    expect(await Promise.all([first, second])).toEqual([LINE, { line: 8 }]);
    // An answer that nobody waits for any more is let go.
    worker.says({ kind: 'answer', id: asked[0].id, ok: true, value: LINE });
  });

  it('refuses with the code and the words of the engine', async () => {
    const { client, worker } = made();
    const asking = client.ask('locateRecord', { tally: 't0', record: 1 }, { token: 9 });
    worker.says({
      kind: 'refusal',
      id: 1,
      ok: false,
      code: 'superseded',
      message: 'A newer request took its place.',
    });
    const error: unknown = await asking.catch((e: unknown) => e);
    expect(error).toBeInstanceOf(Refused);
    expect(error).toMatchObject({ code: 'superseded', message: 'A newer request took its place.' });
  });

  it('takes no answer that is not what was asked for', async () => {
    const { client, worker } = made();
    const asking = client.ask('locateRecord', { tally: 't0', record: 1 }, { token: 9 });
    worker.says({ kind: 'answer', id: 1, ok: true, value: { line: 'four' } });
    await expect(asking).rejects.toMatchObject({ code: 'badReply' });
    const without = client.ask('resolve', { doc: Object.create(null) });
    worker.says({ kind: 'answer', id: 2, ok: true, value: undefined });
    await expect(without).rejects.toMatchObject({ code: 'badReply' });
  });

  it('refuses all that is under way where the worker ends, and begins again', async () => {
    const { client, worker } = made();
    const opening = client.open(3, '');
    const asking = client.ask('locateRecord', { tally: 't0', record: 1 }, { token: 9 });
    worker.breaks();
    expect([worker.ended, heard]).toEqual([true, ['died']]);
    await expect(opening).rejects.toMatchObject({ code: 'workerDied' });
    await expect(asking).rejects.toMatchObject({ code: 'workerDied' });
    client.restart();
    const [, other] = FakeWorker.all;
    const again = client.ask('locateRecord', { tally: 't0', record: 1 }, { token: 1 });
    const [request] = other.sent;
    other.says({
      kind: 'answer',
      id: request.kind === 'ask' ? request.id : 0,
      ok: true,
      value: LINE,
    });
    expect(await again).toEqual(LINE);
    expect(worker.sent).toHaveLength(2);
  });

  it('has the worker give up what takes too long', () => {
    const { client, worker } = made();
    client.cancel();
    expect(worker.sent).toEqual([{ kind: 'stop' }]);
  });
});

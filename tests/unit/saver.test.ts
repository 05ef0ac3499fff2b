import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Bench } from '$lib/core/bench/document';
import { setLead } from '$lib/core/bench/edits';
import { newBench } from '$lib/core/bench/newBench';
import { Saver } from '$lib/ui/bench/saver.svelte';
import { small } from '../support/smallList';

/** What the server was sent, and what it answers next. */
interface Sent {
  readonly url: string;
  readonly follows: number;
  readonly lead: string | null;
}
let sent: Sent[] = [];
let answers: (() => Response | Promise<Response>)[] = [];

const saved = (revision: number) => (): Response =>
  Response.json({ revision, savedAt: '2026-11-27T06:00:00Z' });
const refused = (status: number, body: object) => (): Response => Response.json(body, { status });

const start = newBench(small, 1);
const led = (lead: string): Bench => setLead(start, lead);
const saver = (apart = false): Saver => new Saver({ id: 7, name: 'Depots' }, 1, apart);

beforeEach(() => {
  vi.useFakeTimers();
  sent = [];
  answers = [];
  vi.stubGlobal('fetch', async (url: string, { body }: { body: string }) => {
    const { follows, doc } = JSON.parse(body);
    sent.push({ url, follows, lead: doc.lead });
    const answer = answers.shift();
    if (!answer) throw new TypeError('Failed to fetch');
    return await answer();
  });
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('a bench saves itself', () => {
  it('once nothing changed for a moment, and only its newest state', async () => {
    answers = [saved(2)];
    const own = saver();
    own.save(led('Sum'));
    await vi.advanceTimersByTimeAsync(500);
    own.save(led('Region'));
    await vi.advanceTimersByTimeAsync(500);
    expect(sent).toEqual([]);
    expect([own.state, own.unsaved]).toEqual(['waiting', true]);
    await vi.advanceTimersByTimeAsync(200);
    expect(sent).toEqual([{ url: '/api/benches/7', follows: 1, lead: 'Region' }]);
    expect([own.state, own.revision, own.unsaved]).toEqual(['saved', 2, false]);
  });

  it('one save after another: what changes meanwhile follows what was saved', async () => {
    let arrive: (response: Response) => void = () => undefined;
    answers = [() => new Promise((done) => (arrive = done)), saved(3)];
    const own = saver();
    own.save(led('Sum'));
    await vi.advanceTimersByTimeAsync(600);
    expect(own.state).toBe('saving');
    own.save(led('Region'));
    await vi.advanceTimersByTimeAsync(700);
    // Still on its way: nothing overtakes it.
    expect(sent).toHaveLength(1);
    arrive(saved(2)());
    // What was changed meanwhile is not saved yet, and nothing says that it is.
    await vi.advanceTimersByTimeAsync(10);
    expect([own.state, own.revision, own.unsaved]).toEqual(['waiting', 2, true]);
    await vi.advanceTimersByTimeAsync(600);
    expect(sent.map(({ follows, lead }) => [follows, lead])).toEqual([
      [1, 'Sum'],
      [2, 'Region'],
    ]);
    expect([own.state, own.revision]).toEqual(['saved', 3]);
  });

  it('tries again where the server does not answer, and says so', async () => {
    const own = saver();
    own.save(led('Sum'));
    await vi.advanceTimersByTimeAsync(600);
    expect(own.state).toBe('failed');
    expect(own.problem).toContain('kept in this browser');
    answers = [saved(2)];
    await vi.advanceTimersByTimeAsync(5000);
    expect([own.state, own.problem, sent.length]).toEqual(['saved', '', 2]);
  });

  it('tells why the server refused it, in the words of the server', async () => {
    answers = [
      refused(507, { detail: 'There is no room left on the disk.' }),
      () => new Response('<html>', { status: 502 }),
    ];
    const own = saver();
    own.save(led('Sum'));
    await vi.advanceTimersByTimeAsync(600);
    expect([own.state, own.problem]).toEqual(['failed', 'There is no room left on the disk.']);
    await own.flush();
    expect(own.problem).toBe('The bench could not be saved.');
  });

  it('waits for nothing where it is asked to, and comes to its end', async () => {
    answers = [saved(2), saved(3)];
    const own = saver();
    own.save(led('Sum'));
    const settled = own.settle();
    await vi.advanceTimersByTimeAsync(20);
    await settled;
    expect([own.revision, sent.length]).toEqual([2, 1]);
    await own.settle();
    expect(sent).toHaveLength(1);
  });

  it('settles where it cannot be saved as well', async () => {
    const own = saver();
    own.save(led('Sum'));
    await own.settle();
    expect([own.state, own.unsaved]).toEqual(['failed', true]);
  });
});

describe('a bench that was saved elsewhere meanwhile', () => {
  const theirs = { ...start, lead: 'Depot' };
  const conflicted = async (): Promise<Saver> => {
    answers = [refused(409, { revision: 5, doc: theirs })];
    const own = saver();
    own.save(led('Sum'));
    await vi.advanceTimersByTimeAsync(600);
    return own;
  };

  it('is not overwritten, by no later change either', async () => {
    const own = await conflicted();
    expect([own.state, own.theirs?.revision, own.theirs?.doc.lead]).toEqual([
      'conflict',
      5,
      'Depot',
    ]);
    own.save(led('Region'));
    await vi.advanceTimersByTimeAsync(10_000);
    await own.flush();
    expect(sent).toHaveLength(1);
    expect(own.state).toBe('conflict');
  });

  it('is taken as it is there', async () => {
    const own = await conflicted();
    expect(own.takeTheirs()?.lead).toBe('Depot');
    expect([own.state, own.revision, own.theirs]).toEqual(['saved', 5, null]);
    expect(own.takeTheirs()).toBeNull();
    await vi.advanceTimersByTimeAsync(10_000);
    expect(sent).toHaveLength(1);
  });

  it('or has this state put on top of it', async () => {
    const own = await conflicted();
    answers = [saved(6)];
    own.keepMine(led('Region'));
    await vi.advanceTimersByTimeAsync(0);
    expect(sent.at(-1)).toMatchObject({ follows: 5, lead: 'Region' });
    expect([own.state, own.revision]).toEqual(['saved', 6]);
    own.keepMine(led('Sum'));
    expect(sent).toHaveLength(2);
  });
});

describe('an earlier state that is looked at', () => {
  it('stays on the page, and says so once something is changed in it', async () => {
    const own = saver(true);
    own.save(led('Sum'), true);
    expect(own.state).toBe('saved');
    own.save(led('Sum'));
    expect(own.state).toBe('apart');
    await vi.advanceTimersByTimeAsync(10_000);
    expect(sent).toEqual([]);
    // Taken up as the bench itself, it is saved again.
    own.join();
    own.follow({ follows: 4, doc: led('Sum'), sent: [] });
    answers = [saved(5)];
    own.save(led('Region'));
    await vi.advanceTimersByTimeAsync(600);
    expect(sent).toEqual([{ url: '/api/benches/7', follows: 4, lead: 'Region' }]);
  });
});

describe('a page that was left while it was saving', () => {
  const own409 = (revision: number, doc: Bench) => refused(409, { revision, doc });

  it('meets its own state, and goes on from it', async () => {
    const own = saver();
    own.follow({ follows: 1, doc: led('Sum'), sent: [] });
    answers = [own409(2, led('Sum')), saved(3)];
    own.save(led('Region'));
    await vi.advanceTimersByTimeAsync(600);
    expect(sent.map(({ follows, lead }) => [follows, lead])).toEqual([
      [1, 'Region'],
      [2, 'Region'],
    ]);
    expect([own.state, own.revision, own.theirs]).toEqual(['saved', 3, null]);
  });

  it('keeps at once what it sent and what came after it, and nothing once all is saved', async () => {
    const kept: { doc: { lead: string }; sent: { lead: string }[]; follows: number }[] = [];
    vi.stubGlobal('localStorage', {
      setItem: (_: string, value: string) => void kept.push(JSON.parse(value)),
      removeItem: () => undefined,
    });
    let arrive: (response: Response) => void = () => undefined;
    answers = [() => new Promise((done) => (arrive = done)), saved(3)];
    const own = saver();
    own.leave();
    own.save(led('Sum'));
    await vi.advanceTimersByTimeAsync(600);
    own.save(led('Region'));
    own.leave();
    expect(kept).toMatchObject([{ follows: 1, doc: { lead: 'Region' }, sent: [{ lead: 'Sum' }] }]);
    arrive(saved(2)());
    await vi.advanceTimersByTimeAsync(1200);
    expect(own.state).toBe('saved');
    own.leave();
    expect(kept).toHaveLength(1);
  });

  it('meets a state that was on its way while a newer one was made', async () => {
    const own = saver();
    own.follow({ follows: 1, doc: led('Region'), sent: [led('Sum')] });
    answers = [own409(2, led('Sum')), saved(3)];
    own.save(led('Region'));
    await vi.advanceTimersByTimeAsync(600);
    expect([own.state, own.revision, own.theirs]).toEqual(['saved', 3, null]);
  });

  it('has nothing left to save where that is what it would save', async () => {
    const own = saver();
    own.follow({ follows: 1, doc: led('Sum'), sent: [] });
    answers = [own409(2, led('Sum'))];
    own.save(led('Sum'));
    await vi.advanceTimersByTimeAsync(600);
    expect([own.state, own.revision, sent.length]).toEqual(['saved', 2, 1]);
  });

  it('an answer that was lost is no conflict either, a state of others still is', async () => {
    const own = saver();
    own.save(led('Sum'));
    await vi.advanceTimersByTimeAsync(600);
    expect(own.state).toBe('failed');
    answers = [own409(2, led('Sum')), own409(3, led('Depot'))];
    own.save(led('Region'));
    await vi.advanceTimersByTimeAsync(600);
    expect([own.state, own.theirs?.revision]).toEqual(['conflict', 3]);
  });
});

import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Bench } from '$lib/core/bench/document';
import { setLead } from '$lib/core/bench/edits';
import { newBench } from '$lib/core/bench/newBench';
import type { Waiting } from '$lib/ui/bench/outbox';
import { small } from '../support/smallList';

/** What the browser keeps, and which locks its open tabs hold. */
const kept = new Map<unknown, unknown>();
const locks = new Set<string>();

vi.mock('idb-keyval', () => ({
  createStore: () => 'store',
  get: async (key: unknown) => kept.get(key),
  set: async (key: unknown, value: unknown) => void kept.set(key, structuredClone(value)),
  del: async (key: unknown) => void kept.delete(key),
  entries: async () => [...kept],
}));
vi.stubGlobal('navigator', {
  locks: {
    request: async (name: string) => void locks.add(name),
    query: async () => ({ held: [...locks].map((name) => ({ name })) }),
  },
});

/** What is kept at once. */
const atOnce = new Map<string, string>();
vi.stubGlobal('localStorage', {
  getItem: (key: string) => atOnce.get(key) ?? null,
  setItem: (key: string, value: string) => void atOnce.set(key, value),
  removeItem: (key: string) => void atOnce.delete(key),
  key: (k: number) => [...atOnce.keys()][k] ?? null,
  get length() {
    return atOnce.size;
  },
});

const start = newBench(small, 1);
const led = (lead: string): Bench => setLead(start, lead);

const waiting = (lead: string): Waiting => ({
  bench: 7,
  name: 'Depots',
  follows: 3,
  doc: led(lead),
  sent: [],
});

/** A page of its own, as another tab opens it. */
async function tab(): Promise<{
  outbox: typeof import('$lib/ui/bench/outbox');
  crash: () => void;
}> {
  vi.resetModules();
  const before = new Set(locks);
  const outbox = await import('$lib/ui/bench/outbox');
  const { thisTab } = await import('$lib/ui/bench/tab');
  thisTab();
  const own = [...locks].filter((name) => !before.has(name));
  return { outbox, crash: () => own.forEach((name) => locks.delete(name)) };
}
const leads = (left: readonly { doc: { lead: string | null } }[]): (string | null)[] =>
  left.map(({ doc }) => doc.lead);

beforeEach(() => {
  kept.clear();
  atOnce.clear();
  locks.clear();
});

describe('what is not sent yet', () => {
  it('is kept by each tab for itself: two that crash leave both, the newest first', async () => {
    const [one, two] = [await tab(), await tab()];
    await one.outbox.keepUnsent(waiting('Sum'));
    await new Promise((resolve) => setTimeout(resolve, 5));
    await two.outbox.keepUnsent(waiting('Day'));
    const later = await tab();
    // Open tabs send their own.
    expect(await later.outbox.leftUnsent()).toEqual([]);
    one.crash();
    two.crash();
    const left = await later.outbox.leftUnsent();
    expect(leads(left)).toEqual(['Day', 'Sum']);
    await later.outbox.drop(left[0]);
    expect(leads(await later.outbox.leftUnsent())).toEqual(['Sum']);
  });

  it('is not dropped by what another tab saves', async () => {
    const [one, two] = [await tab(), await tab()];
    await one.outbox.keepUnsent(waiting('Sum'));
    await two.outbox.keepUnsent(waiting('Day'));
    await two.outbox.dropUnsent(7);
    one.crash();
    expect(leads(await two.outbox.leftUnsent())).toEqual(['Sum']);
  });

  it('of this tab itself is its own, where the browser has no locks too', async () => {
    const one = await tab();
    one.crash();
    await one.outbox.keepUnsent(waiting('Sum'));
    expect(await one.outbox.leftUnsent()).toEqual([]);
  });

  it('at leaving stands before what was kept earlier, even while its tab still counts as open', async () => {
    const [one, two] = [await tab(), await tab()];
    await one.outbox.keepUnsent(waiting('Sum'));
    await two.outbox.keepUnsent(waiting('Region'));
    one.outbox.keepAtLeaving({ ...waiting('Day'), sent: [led('Sum')] });
    const later = await tab();
    const left = await later.outbox.leftUnsent();
    expect(leads(left)).toEqual(['Day']);
    expect(leads(left[0].sent.map((doc) => ({ doc })))).toEqual(['Sum']);
    await later.outbox.drop(left[0]);
    expect([kept.size, atOnce.size]).toEqual([1, 0]);
    expect(await later.outbox.leftUnsent()).toEqual([]);
  });

  it('at leaving is kept for nothing that is saved', async () => {
    const one = await tab();
    one.outbox.keepAtLeaving(waiting('Sum'));
    await one.outbox.dropUnsent(7);
    expect([atOnce.size, await one.outbox.leftUnsent()]).toEqual([0, []]);
  });

  it('of an earlier version is found under the number of its bench', async () => {
    kept.set(7, { bench: 7, name: 'Depots', follows: 2, doc: led('Sum'), at: '2026-11-01' });
    kept.set(8, { bench: 8, nothing: 'that was ever kept' });
    const { outbox } = await tab();
    const left = await outbox.leftUnsent();
    expect(leads(left)).toEqual(['Sum']);
    await outbox.drop(left[0]);
    expect([...kept.keys()]).toEqual([8]);
  });
});

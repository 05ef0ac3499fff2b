import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Bench } from '$lib/core/bench/document';
import { setLead } from '$lib/core/bench/edits';
import { newBench } from '$lib/core/bench/newBench';
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

const start = newBench(small, 1);
const led = (lead: string): Bench => setLead(start, lead);

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
  locks.clear();
});

describe('what is not sent yet', () => {
  it('is kept by each tab for itself: two that crash leave both, the newest first', async () => {
    const [one, two] = [await tab(), await tab()];
    await one.outbox.keepUnsent(7, 'Depots', 3, led('Sum'));
    await new Promise((resolve) => setTimeout(resolve, 5));
    await two.outbox.keepUnsent(7, 'Depots', 3, led('Day'));
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
    await one.outbox.keepUnsent(7, 'Depots', 3, led('Sum'));
    await two.outbox.keepUnsent(7, 'Depots', 3, led('Day'));
    await two.outbox.dropUnsent(7);
    one.crash();
    expect(leads(await two.outbox.leftUnsent())).toEqual(['Sum']);
  });

  it('of this tab itself is its own, where the browser has no locks too', async () => {
    const one = await tab();
    one.crash();
    await one.outbox.keepUnsent(7, 'Depots', 3, led('Sum'));
    expect(await one.outbox.leftUnsent()).toEqual([]);
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

import { createStore, del, entries, set } from 'idb-keyval';
import { z } from 'zod';
import { AnyBench } from '../../core/bench/upgrade';
import { isOpen, thisTab } from './tab';

/** A bench's state that the server has not answered for yet. */
const Unsent = z.strictObject({
  bench: z.int(),
  /** What the analyst knows it by. */
  name: z.string(),
  /** The revision it was made from. */
  follows: z.int(),
  doc: AnyBench,
  /** States that were sent before it and never answered for, the oldest first: what is saved may be one of them. */
  sent: z.array(AnyBench).default([]),
  at: z.string(),
  /** The tab that it was made in; none in what earlier versions kept. */
  tab: z.string().default(''),
});
export type Unsent = z.infer<typeof Unsent>;

/**
 * States on their way to the server, kept in this browser (IndexedDB) until they are saved: a closed
 * tab, a lost connection or a stopped server loses nothing. Each tab keeps its own, so that two tabs of one bench do
 * not write over each other. Where the browser keeps nothing, all goes on without.
 */
const store = (): ReturnType<typeof createStore> => createStore('tally-loft-unsent', 'benches');

/** Where a state is kept; what earlier versions kept stands under the number of its bench alone. */
const keyOf = ({ bench, tab }: Pick<Unsent, 'bench' | 'tab'>): string | number =>
  tab === '' ? bench : `${bench} ${tab}`;

async function quietly<T>(work: () => Promise<T>, otherwise: T): Promise<T> {
  try {
    return await work();
  } catch {
    return otherwise;
  }
}

/** A state of this tab, and what it was made from. */
export type Waiting = Pick<Unsent, 'bench' | 'name' | 'follows' | 'doc' | 'sent'>;

const ofThisTab = (waiting: Waiting): Unsent => ({
  ...waiting,
  at: new Date().toISOString(),
  tab: thisTab(),
});

export const keepUnsent = (waiting: Waiting): Promise<void> =>
  quietly(() => {
    const own = ofThisTab(waiting);
    return set(keyOf(own), own, store());
  }, undefined);

/** Where a page that is left keeps its states: at once, as nothing that takes its time outlives the page. */
const LEFT = 'tally-loft unsent ';

/** Keeps a state while its page is being left; from then on it counts as one of a closed tab. */
export function keepAtLeaving(waiting: Waiting): void {
  const own = ofThisTab(waiting);
  try {
    localStorage.setItem(`${LEFT}${keyOf(own)}`, JSON.stringify(own));
  } catch {
    // Full, or none: what was kept while the page was there still is.
  }
}

function forgetLeft(of: Pick<Unsent, 'bench' | 'tab'>): void {
  try {
    localStorage.removeItem(`${LEFT}${keyOf(of)}`);
  } catch {
    // The browser keeps nothing.
  }
}

/** What pages kept while they were left, by its key. */
function keptAtLeaving(): Map<string, Unsent> {
  const kept = new Map<string, Unsent>();
  try {
    for (let k = 0; k < localStorage.length; k++) {
      const key = localStorage.key(k);
      if (!key?.startsWith(LEFT)) continue;
      const own = unsentIn(() => JSON.parse(localStorage.getItem(key) ?? 'null'));
      if (own) kept.set(String(keyOf(own)), own);
    }
  } catch {
    // The browser keeps nothing.
  }
  return kept;
}

/** This tab's state of a bench is saved. */
export const dropUnsent = (bench: number): Promise<void> => drop({ bench, tab: thisTab() });

/** A state is saved, or was settled otherwise. */
export const drop = (of: Pick<Unsent, 'bench' | 'tab'>): Promise<void> =>
  quietly(async () => {
    // First, as it works at once; where the browser has no such storage the other is emptied all the same.
    forgetLeft(of);
    await del(keyOf(of), store());
  }, undefined);

/** What was kept, where it can be read; one that cannot hides no other. */
function unsentIn(read: () => unknown): Unsent | null {
  try {
    return Unsent.parse(read());
  } catch {
    return null;
  }
}

/** What tabs kept that are no longer open, the newest first. An open tab sends its own. */
export const leftUnsent = (): Promise<Unsent[]> =>
  quietly(async () => {
    const atLeaving = keptAtLeaving();
    const kept = await quietly(() => entries(store()), []);
    const left = [...atLeaving.values()];
    for (const [key, value] of kept) {
      const own = unsentIn(() => value);
      if (own && !atLeaving.has(String(key)) && !(await isOpen(own.tab))) left.push(own);
    }
    return left.sort((a, b) => (a.at < b.at ? 1 : -1));
  }, []);

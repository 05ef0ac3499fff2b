import { createStore, del, entries, set } from 'idb-keyval';
import { z } from 'zod';
import { AnyBench } from '../../core/bench/upgrade';
import type { Bench } from '../../core/bench/document';
import { isOpen, thisTab } from './tab';

/** A bench's state that the server has not answered for yet. */
const Unsent = z.strictObject({
  bench: z.int(),
  /** What the analyst knows it by. */
  name: z.string(),
  /** The revision it was made from. */
  follows: z.int(),
  doc: AnyBench,
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

export const keepUnsent = (
  bench: number,
  name: string,
  follows: number,
  doc: Bench,
): Promise<void> =>
  quietly(() => {
    const own: Unsent = { bench, name, follows, doc, at: new Date().toISOString(), tab: thisTab() };
    return set(keyOf(own), own, store());
  }, undefined);

/** This tab's state of a bench is saved. */
export const dropUnsent = (bench: number): Promise<void> => drop({ bench, tab: thisTab() });

/** A state is saved, or was settled otherwise. */
export const drop = (of: Pick<Unsent, 'bench' | 'tab'>): Promise<void> =>
  quietly(() => del(keyOf(of), store()), undefined);

/** What was kept, where it can be read; one that cannot hides no other. */
function unsentIn(value: unknown): Unsent | null {
  try {
    return Unsent.parse(value);
  } catch {
    return null;
  }
}

/** What tabs kept that are no longer open, the newest first. An open tab sends its own. */
export const leftUnsent = (): Promise<Unsent[]> =>
  quietly(async () => {
    const kept = (await entries(store())).flatMap(([, value]) => unsentIn(value) ?? []);
    const left: Unsent[] = [];
    for (const own of kept) if (!(await isOpen(own.tab))) left.push(own);
    return left.sort((a, b) => (a.at < b.at ? 1 : -1));
  }, []);

import { createStore, del, entries, get, set } from 'idb-keyval';
import { z } from 'zod';
import { AnyBench } from '../../core/bench/upgrade';
import type { Bench } from '../../core/bench/document';

/** A bench's state that the server has not answered for yet. */
const Unsent = z.strictObject({
  bench: z.int(),
  /** What the analyst knows it by. */
  name: z.string(),
  /** The revision it was made from. */
  follows: z.int(),
  doc: AnyBench,
  at: z.string(),
});
export type Unsent = z.infer<typeof Unsent>;

/**
 * States on their way to the server, kept in this browser (IndexedDB) until they are saved: a closed
 * tab, a lost connection or a stopped server loses nothing. Where the browser keeps nothing, all goes
 * on without.
 */
const store = (): ReturnType<typeof createStore> => createStore('tally-loft-unsent', 'benches');

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
  quietly(
    () => set(bench, { bench, name, follows, doc, at: new Date().toISOString() }, store()),
    undefined,
  );

export const dropUnsent = (bench: number): Promise<void> =>
  quietly(() => del(bench, store()), undefined);

export const findUnsent = (bench: number): Promise<Unsent | null> =>
  quietly(async () => Unsent.safeParse(await get(bench, store())).data ?? null, null);

export const allUnsent = (): Promise<Unsent[]> =>
  quietly(
    async () => (await entries(store())).flatMap(([, value]) => Unsent.safeParse(value).data ?? []),
    [],
  );

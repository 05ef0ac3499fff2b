import { createStore, del, get, set } from 'idb-keyval';
import { z } from 'zod';
import { Recipe } from '../../core/read/recipe';

/** What was decided in an intake so far. */
export const Decided = z.strictObject({
  recipe: Recipe,
  name: z.string(),
  /** Columns set by hand, by their ids. */
  settled: z.array(z.string()),
  setTotalsAside: z.boolean(),
  /** Whether its records are added to the list; else they take the place of all. */
  adds: z.boolean().default(false),
  /** Differences from the list's recipe that were decided on, by their keys. */
  decisions: z.array(z.tuple([z.string(), z.boolean()])),
});
export type Decided = z.infer<typeof Decided>;

/** A file being read, with what was decided so far: left on the desk by a page that was reloaded. */
const Left = z.strictObject({ file: z.instanceof(File), decided: Decided });
export type Left = z.infer<typeof Left>;

/** Larger files are not copied: leaving asks all the same. */
const MOST_BYTES = 100 * 1024 * 1024;

/** One desk for new lists, and one for each list that is refreshed. */
const place = (list: number | null): string => (list === null ? 'new' : String(list));
const store = (): ReturnType<typeof createStore> => createStore('tally-loft-desk', 'intakes');

/** Where the browser keeps nothing, all goes on without. */
export async function leaveOnDesk(list: number | null, left: Left): Promise<void> {
  if (left.file.size > MOST_BYTES) return;
  await set(place(list), left, store()).catch(() => undefined);
}

export async function clearDesk(list: number | null): Promise<void> {
  await del(place(list), store()).catch(() => undefined);
}

export async function lookOnDesk(list: number | null): Promise<Left | null> {
  const found: unknown = await get(place(list), store()).catch(() => undefined);
  return Left.safeParse(found).data ?? null;
}

import { readAsk } from './badAsk';
import type { Ask } from './ask';
import type { Task } from '../task/task';
import { columnFacts } from '../tally/wish/listFacts';
import type { Table } from '../table/table';
import { ListWords } from '../wish/listWords';
import { offersFor } from '../wish/offers';
import type { ReadAs } from '../wish/readAs';
import type { Respelling } from '../wish/respelled';

/** What a wish may mean: in words, what of it was not understood, and the ask that it would be. */
export interface WishedAsk {
  readonly sentence: string;
  /** What narrows to the records that were asked of, in words. */
  readonly narrowed: readonly string[];
  /** Words that were not understood, as they were typed. */
  readonly notUnderstood: readonly string[];
  /** Word by word what it was read as; empty where it was not. */
  readonly read: readonly ReadAs[];
  /** Words that were taken for others, which are near. */
  readonly taken: readonly Respelling[];
  readonly ask: Ask;
}

/**
 * The asks that a wish may mean, the likeliest first, as the finder of the page offers them.
 * @param name what the list is called
 * @example finish(wishedAsks('fares by vessel in 2024, first 3', table, 'Sailings'))[0].ask
 */
export function* wishedAsks(typed: string, table: Table, name: string): Task<WishedAsk[]> {
  const columns = yield* columnFacts(table);
  const facts = { records: table.length, columns, lead: null, lists: [] };
  return offersFor(typed, new ListWords(table), facts, name, []).map(
    ({ sentence, narrow, narrowWords, left, read, taken, tally }) => ({
      sentence,
      narrowed: narrowWords,
      notUnderstood: left,
      read,
      taken,
      ask: readAsk({
        ladder: { rungs: narrow.map((condition) => ({ condition })) },
        tallies: [tally],
      }),
    }),
  );
}

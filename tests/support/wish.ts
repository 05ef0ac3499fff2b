import type { KeptBands } from '$lib/core/arrange/bands';
import type { Table } from '$lib/core/table/table';
import { finish } from '$lib/core/task/task';
import type { ListFacts, OtherList } from '$lib/core/tally/wish/guess';
import { columnFacts } from '$lib/core/tally/wish/listFacts';
import type { Wish } from '$lib/core/tally/wish/wish';
import { ListWords } from '$lib/core/wish/listWords';
import { offersFor, type Offer } from '$lib/core/wish/offers';
import { readingsOf } from '$lib/core/wish/reading';
import { tokensOf } from '$lib/core/wish/tokens';

/** What words wish for, as they are read first; null where no figure is asked for. */
export function wishOf(text: string, table: Table, kept: readonly KeptBands[] = []): Wish | null {
  const words = new ListWords(table);
  const [{ wish, asks }] = readingsOf({ tokens: tokensOf(text), words, listName: '', kept });
  return asks ? wish : null;
}

/** What a list offers for words that are typed. */
export function offersOf(
  table: Table,
  name: string,
  others: OtherList[] = [],
): (typed: string) => Offer[] {
  const words = new ListWords(table);
  const facts: ListFacts = {
    records: table.length,
    columns: finish(columnFacts(table)),
    lead: null,
    lists: [],
    others,
  };
  return (typed) => offersFor(typed, words, facts, name, []);
}

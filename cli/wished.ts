import { readAsk } from '$lib/core/ask/badAsk';
import type { Ask } from '$lib/core/ask/ask';
import { finish } from '$lib/core/task/task';
import { columnFacts } from '$lib/core/tally/wish/listFacts';
import type { Table } from '$lib/core/table/table';
import { ListWords } from '$lib/core/wish/listWords';
import { offersFor } from '$lib/core/wish/offers';
import { Misused } from './exit';

/**
 * The ask that a wish means, as the finder of the page would begin it.
 * @throws Misused where it is no wish, or for words of it that were not understood
 * @example wished('fares by vessel in 2024, first 3', table, 'sailings')
 */
export function wished(typed: string, table: Table, name: string): Ask {
  const facts = {
    records: table.length,
    columns: finish(columnFacts(table)),
    lead: null,
    lists: [],
  };
  const [best] = offersFor(typed, new ListWords(table), facts, name, []);
  if (!best)
    throw new Misused(
      `“${typed}” asks for no figures of this list. Its columns are ${table.columns.map((c) => `“${c.name}”`).join(', ')}.`,
    );
  if (best.left.length)
    throw new Misused(
      `Not understood: ${best.left.map((word) => `“${word}”`).join(', ')}. Without ${best.left.length === 1 ? 'it' : 'them'}: ${best.sentence}`,
    );
  return readAsk({
    ladder: { rungs: best.narrow.map((condition) => ({ condition })) },
    tallies: [best.tally],
  });
}

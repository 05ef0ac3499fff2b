import type { Ask } from '$lib/core/ask/ask';
import { finish } from '$lib/core/task/task';
import type { Table } from '$lib/core/table/table';
import { wishedAsks } from '$lib/core/ask/wishedAsks';
import { Misused } from './exit';
import { note } from './output';

/**
 * The ask that a wish means, as the finder of the page would begin it.
 * @throws Misused where it is no wish, or for words of it that were not understood
 * @example wished('fares by vessel in 2024, first 3', table, 'sailings')
 */
export function wished(typed: string, table: Table, name: string): Ask {
  const [best] = finish(wishedAsks(typed, table, name));
  if (!best)
    throw new Misused(
      `“${typed}” asks for no figures of this list. Its columns are ${table.columns.map((c) => `“${c.name}”`).join(', ')}.`,
    );
  const { notUnderstood } = best;
  if (notUnderstood.length)
    throw new Misused(
      `Not understood: ${notUnderstood.map((word) => `“${word}”`).join(', ')}. Without ${notUnderstood.length === 1 ? 'it' : 'them'}: ${best.sentence}`,
    );
  for (const { typed: word, takenFor } of best.taken)
    note(`“${word}” was taken for “${takenFor}”.`);
  return best.ask;
}

import type { ReplyOf } from './protocol';

type Rows = ReplyOf<'rows'>;

/** Rows that one answer may be asked for. */
export const MOST_AT_ONCE = 2000;
/** A chart that needs all rows of a table draws at most so many, and says so. */
export const MOST_DRAWN = 10_000;

/**
 * Rows of a table in as many answers as their weight takes: an answer may bring fewer than are asked for.
 * @param ask one answer: rows from a place on, at most so many
 * @param least once so many have come, no further answer is waited for; all `count` unless given
 */
export async function gatherRows(
  ask: (from: number, count: number) => Promise<Rows> | Rows,
  from: number,
  count: number,
  least = count,
): Promise<Rows> {
  const first = await ask(from, Math.min(count, MOST_AT_ONCE));
  const rows = [...first.rows];
  const enough = Math.min(least, first.length - from);
  while (rows.length < enough) {
    const came = await ask(from + rows.length, Math.min(count - rows.length, MOST_AT_ONCE));
    if (came.rows.length === 0) break;
    rows.push(...came.rows);
  }
  return { ...first, rows };
}

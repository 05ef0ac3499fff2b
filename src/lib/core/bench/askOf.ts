import type { Ask } from '../ask/ask';
import type { Bench } from './document';

/**
 * The ask that comes to a bench's figures: what the command line answers from the same file. How the
 * bench is looked at (folds, widths, formats) stays behind.
 */
export function askOf({
  lists,
  corrections,
  reshape,
  joins,
  computed,
  ladder,
  sort,
  tray,
}: Bench): Ask {
  return {
    version: 3,
    lists,
    corrections,
    reshape,
    joins,
    computed,
    ladder,
    sort,
    leaveOut: [],
    also: [],
    tallies: tray.map(({ name, tally }) => ({
      ...tally,
      ...(name !== undefined && { title: name }),
    })),
  };
}

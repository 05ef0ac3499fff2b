import type { Ask } from '../ask/ask';
import type { Question } from '../ask/question';
import { VERSION } from '../ask/version';
import type { Bench } from './document';

/** What a bench asks about its list, whatever stands in its tray. */
export const questionOf = ({
  lists,
  corrections,
  reshape,
  joins,
  computed,
  ladder,
  sort,
}: Bench): Question => ({ lists, corrections, reshape, joins, computed, ladder, sort });

/**
 * The ask that comes to a bench's figures: what the command line answers from the same file. How the
 * bench is looked at (folds, widths) stays behind.
 */
export const askOf = (doc: Bench): Ask => ({
  version: VERSION,
  ...questionOf(doc),
  leaveOut: [],
  also: [],
  formats: doc.formats,
  tallies: doc.tray.map(({ name, tally }) => ({
    ...tally,
    ...(name !== undefined && { title: name }),
  })),
});

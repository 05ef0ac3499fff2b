import { footResult } from '../../core/check/footResult';
import type { Steps } from '../../core/steps/steps';
import type { Base } from '../../core/tally/base';
import { Faults } from '../../core/tally/fault';
import { TallyRefused } from '../../core/tally/kind';
import { kindOf, reckonTally, type Tally } from '../../core/tally/kinds';
import type { ReplyOf } from '../protocol';
import type { Reckoned } from '../reckoning';

/** What a bench counts, as tallies reckon from it. */
export const tallyBase = (r: Reckoned, listName: string): Base => ({
  listName,
  table: r.table,
  all: r.ladder.all,
  narrowed: r.ladder.narrowed,
  counted: r.ladder.counted,
  order: r.order,
  ladder: r.doc.ladder,
  others: new Map(),
});

/** Any tally over the bench reckoned last. @throws TallyRefused naming the first thing that does not fit */
export function* answerTally(r: Reckoned, tally: Tally, listName: string): Steps<ReplyOf<'tally'>> {
  const faults = new Faults(r.table.columns);
  kindOf(tally).check(tally, faults, 'tally');
  const [fault] = faults.found;
  if (fault) throw new TallyRefused(`${fault.path}: ${fault.message} ${fault.remedy}`);
  const base = tallyBase(r, listName);
  const result = yield* reckonTally(base, tally);
  return { ...result, footing: footResult(base, result) };
}

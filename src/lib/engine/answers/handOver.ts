import { isLedger } from '../../core/bench/tray';
import type { Steps } from '../../core/steps/steps';
import type { Held } from '../held';
import type { ArgsOf, ReplyOf } from '../protocol';
import { copyShown, fileRecords, fileShown } from './handOverLedger';
import { copyTally, fileTally } from './handOverTally';

/** What is shown of a ledger or of another tally, for the clipboard. */
export function* answerCopy(held: Held, { tally, full }: ArgsOf<'copy'>): Steps<ReplyOf<'copy'>> {
  return isLedger(held.item(tally))
    ? yield* copyShown(yield* held.ledger(tally), full)
    : yield* copyTally(held, tally, full);
}

/** What is shown of a tally, or the counted records in its order, as delimited text. */
export function* answerFile(
  held: Held,
  { tally, what, full, dialect }: ArgsOf<'file'>,
): Steps<ReplyOf<'file'>> {
  if (!isLedger(held.item(tally)))
    return yield* what === 'shown'
      ? fileTally(held, tally, full, dialect)
      : fileRecords(held, held.stand.base.order, full, dialect);
  const ledger = yield* held.ledger(tally);
  return yield* what === 'shown'
    ? fileShown(ledger, full, dialect)
    : fileRecords(held, ledger.ledger.order, full, dialect);
}

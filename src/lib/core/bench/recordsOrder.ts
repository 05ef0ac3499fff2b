import type { Steps } from '../steps/steps';
import type { Base } from '../tally/base';
import { fit } from '../tally/evaluate';
import { ledgerOrder } from '../tally/ledger/compute';
import type { Bench } from './document';
import { openLedger } from './tray';

/**
 * The order in which the records of a bench are handed over, whoever does: that of the ledger that is open,
 * or else of the first one of the tray; where there is none, that of the question.
 * @returns all records of the list
 */
export function* recordsOrder(base: Base, doc: Bench): Steps<Int32Array> {
  const ledger = openLedger(doc);
  if (!ledger) return base.order;
  const { tally } = fit(base, ledger.tally, 'tally');
  return tally.kind === 'ledger' ? yield* ledgerOrder(base, tally) : base.order;
}

import type { Task } from '../task/task';
import type { TallyInput } from '../tally/input/input';
import { fit } from '../tally/kind/evaluate';
import { ledgerOrder } from '../tally/kinds/ledger/compute';
import type { Bench } from './document';
import { openLedger } from './tray';

/**
 * The order in which the records of a bench are handed over, whoever does: that of the ledger that is open,
 * or else of the first one of the tray; where there is none, that of the question.
 * @returns all records of the list
 */
export function* recordsOrder(input: TallyInput, doc: Bench): Task<Int32Array> {
  const ledger = openLedger(doc);
  if (!ledger) return input.order;
  const { tally } = fit(input, ledger.tally, 'tally');
  return tally.kind === 'ledger' ? yield* ledgerOrder(input, tally) : input.order;
}
